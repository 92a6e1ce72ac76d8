package yarrowmark.server.bench;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.web.server.LocalServerPort;
import tools.jackson.databind.JsonNode;
import yarrowmark.server.support.Bench;
import yarrowmark.server.support.Client;
import yarrowmark.server.support.Lab;
import yarrowmark.server.support.MovableClock;
import yarrowmark.server.support.ServerTest;

/** Commands that the runner times, and what its sensors say: from the form to the ledger. */
@ServerTest
class TimedCommandsTest {
    @LocalServerPort
    private int port;

    @Autowired
    private MovableClock clock;

    private Lab lab;
    private Client owner;
    private Bench bench;

    @BeforeEach
    void lab() {
        clock.letPass(Duration.ofMinutes(2));
        lab = new Lab(port);
        owner = lab.owner();
        bench = new Bench(port);
    }

    private static Map<String, Object> step(boolean shell, String... arguments) {
        return Map.of("arguments", List.of(arguments), "shell", shell);
    }

    private static Map<String, Object> command(Map<String, Object> more) {
        Map<String, Object> command = new HashMap<>(Map.of(
                "run", step(false, "gzip", "-k", "notes"), "expectedExit", 0, "limitSeconds", 60, "cache", "WARM"));
        command.putAll(more);
        return command;
    }

    private Client.Answer make(String suite, Map<String, Object> command) {
        return owner.post(
                "/api/suites/commands",
                Map.of(
                        "name",
                        suite,
                        "version",
                        "1",
                        "tests",
                        List.of(Map.of("name", "Pack the notes", "group", "EVERYDAY", "command", command))));
    }

    /** A device with a seat for this one test. */
    private Client seated(long test) {
        long plan = owner.post(
                        "/api/plans",
                        Map.of(
                                "name",
                                "Commands " + test,
                                "runs",
                                2,
                                "timedMs",
                                100,
                                "pauseMs",
                                0,
                                "stopOnFailure",
                                false,
                                "items",
                                List.of(Map.of("testId", test, "nice", false))))
                .body()
                .path("id")
                .asLong();
        String code = owner.post("/api/bench/seats", Map.of("planId", plan, "runs", 2, "timedMs", 100, "pauseMs", 0))
                .body()
                .path("code")
                .asString();
        String token = new Client(port)
                .post("/api/device/join", Map.of("code", code))
                .body()
                .path("token")
                .asString();
        Client device = new Client(port).header("Authorization", "Bearer " + token);
        assertThat(Bench.start(device, "LAPTOP", "Timed " + test, List.of()).status())
                .isEqualTo(200);
        return device;
    }

    private static Map<String, Object> reading(String metric, double value) {
        return Map.of("metric", metric, "value", value, "resolution", 0.001, "samples", List.of());
    }

    private static Map<String, Object> run(long test, int number, String output) {
        Map<String, Object> body = new LinkedHashMap<>();
        body.put("testId", test);
        body.put("runNumber", number);
        body.put("attempt", 1);
        body.put("state", "OK");
        body.put("durationMs", 9000);
        body.put("readings", List.of(reading("wall", 4.25), reading("user", 3.9), reading("peak-memory", 2_000_000)));
        body.put("timedMs", 4250);
        body.put("output", output);
        return body;
    }

    private List<JsonNode> lines(Client device) {
        long session = device.get("/api/device/seat").body().path("sessionId").asLong();
        return bench.ledger("size=100&session=" + session)
                .path("rows")
                .valueStream()
                .toList();
    }

    @Test
    void aCommandGoesToTheDeviceAsItWasWrittenAndItsTimeIntoTheLedger() {
        Map<String, Object> command = command(Map.of(
                "prepare",
                step(true, "seq 100000 > notes"),
                "cleanUp",
                step(true, "rm -f notes.gz"),
                "version",
                step(false, "gzip", "--version"),
                "folder",
                "notes",
                "environment",
                Map.of("LC_ALL", "C"),
                "between",
                Map.of("from", "begin", "to", "end")));
        long test = make("Commands whole", command).body().get(0).asLong();
        Client device = seated(test);
        JsonNode told = device.get("/api/device/seat").body().path("tests").get(0);
        assertThat(told.path("byHand").asBoolean()).isFalse();
        assertThat(told.path("key").asString()).startsWith("native-command-pack-the-notes");
        assertThat(told.path("runs").asInt()).isEqualTo(2);
        assertThat(told.path("command")).isEqualTo(Client.JSON.valueToTree(command));

        Client.Answer stored = bench.deliver(device, run(test, 1, "deflated 70 %\n"));
        assertThat(stored.status()).as(stored.detail()).isEqualTo(200);
        assertThat(lines(device))
                .extracting(l -> l.path("metric").asString())
                .contains("Pack the notes", "Pack the notes, user time", "Pack the notes, peak memory");
        long session = device.get("/api/device/seat").body().path("sessionId").asLong();
        JsonNode file =
                owner.get("/api/sessions/" + session + "/evidence").body().get(0);
        assertThat(file.path("name").asString()).isEqualTo("output of run 1.txt");
        assertThat(file.path("runId").asLong())
                .isEqualTo(stored.body().path("runId").asLong());
        assertThat(owner.get("/api/evidence/" + file.path("id").asLong()).raw().body())
                .isEqualTo("deflated 70 %\n");
    }

    @Test
    void aScoreThatIsPrintedIsReadInItsUnitAndWhatIsNotThereIsAFailure() {
        long test = make(
                        "Commands printed",
                        command(Map.of(
                                "output",
                                Map.of(
                                        "kind",
                                        "LINE",
                                        "expression",
                                        "wrote ([\\d.]+)",
                                        "unit",
                                        "MB/s",
                                        "direction",
                                        "MORE_IS_BETTER"))))
                .body()
                .get(0)
                .asLong();
        Client device = seated(test);
        assertThat(device.get("/api/device/seat")
                        .body()
                        .path("tests")
                        .get(0)
                        .path("metric")
                        .asString())
                .isEqualTo("value");
        assertThat(bench.deliver(device, run(test, 1, "pass 1\nwrote 2.5 GB/s\n"))
                        .status())
                .isEqualTo(200);
        assertThat(bench.deliver(device, run(test, 2, "wrote nothing\n")).status())
                .isEqualTo(200);
        assertThat(lines(device))
                .filteredOn(l -> l.path("metric").asString().equals("Pack the notes"))
                .singleElement()
                .satisfies(l -> assertThat(l.path("value").asDouble()).isCloseTo(2500, within(1e-9)));
        JsonNode lane = owner.get("/api/bench")
                .body()
                .path("lanes")
                .valueStream()
                .filter(l -> l.path("sessionId").asLong()
                        == device.get("/api/device/seat")
                                .body()
                                .path("sessionId")
                                .asLong())
                .findFirst()
                .orElseThrow();
        JsonNode second = lane.path("tests").get(0).path("runs").get(1);
        assertThat(second.path("state").asString()).isEqualTo("FAILED");
        assertThat(second.path("reasonWords").asString()).contains("Nothing in the text is like this");
    }

    @Test
    void sensorsOfARunAreKeptAndComeToNumbers() {
        long test = make("Commands sensed", command(Map.of())).body().get(0).asLong();
        Client device = seated(test);
        List<Double> falling =
                IntStream.range(0, 24).mapToObj(i -> 3e9 - i * 4e7).toList();
        Map<String, Object> body = new HashMap<>(run(test, 1, ""));
        body.put(
                "tracks",
                List.of(
                        track("temperature", "Package id 0", "°C", List.of(60.0, 80.0)),
                        track("power", "Processor package-0", "W", List.of(20.0, 30.0)),
                        track("clock", "Core 0", "Hz", falling),
                        track("throttle", "Held back for heat", "times", List.of(0.0, 2.0)),
                        track("fan", "Fan 1", "1/min", List.of(900.0, 1200.0))));
        Client.Answer stored = bench.deliver(device, body);
        assertThat(stored.status()).as(stored.detail()).isEqualTo(200);
        Map<String, Double> values = new HashMap<>();
        lines(device)
                .forEach(l ->
                        values.put(l.path("metric").asString(), l.path("value").asDouble()));
        assertThat(values)
                .containsEntry("Pack the notes, highest temperature", 80.0)
                .containsEntry("Pack the notes, mean temperature", 70.0)
                .containsEntry("Pack the notes, energy", 25.0)
                .containsEntry("Pack the notes, mean clock", (3e9 - 11.5 * 4e7) / 1e9)
                .doesNotContainKey("Pack the notes, work per joule");
        JsonNode page = owner.get("/api/readings/"
                        + lines(device).get(0).path("readingId").asLong())
                .body();
        assertThat(page.path("tracks")).hasSize(5);
        assertThat(page.path("tracks").get(4).path("values").toString()).isEqualTo("[900.0,1200.0]");
        assertThat(page.path("note").asString()).contains("held itself back for heat 2 times", "clock fell to");
    }

    private static Map<String, Object> track(String kind, String name, String unit, List<Double> values) {
        return Map.of("kind", kind, "name", name, "unit", unit, "stepMs", 500, "values", values);
    }

    @Test
    void whatASensorSaysNowIsALineAtTheBenchUntilTheRoundIsOver() {
        long test = make("Commands live", command(Map.of())).body().get(0).asLong();
        Client device = seated(test);
        for (double celsius : new double[] {41, 43.5}) {
            assertThat(device.post(
                                    "/api/device/progress",
                                    Map.of(
                                            "phase",
                                            "RUNNING",
                                            "testId",
                                            test,
                                            "run",
                                            1,
                                            "sensors",
                                            List.of(Map.of("name", "Package id 0", "unit", "°C", "value", celsius))))
                            .status())
                    .isEqualTo(200);
        }
        assertThat(lane(device).path("sensors").toString())
                .isEqualTo("[{\"name\":\"Package id 0\",\"unit\":\"°C\",\"values\":[41.0,43.5]}]");
        device.post("/api/device/end", Map.of("how", "STOPPED"));
        assertThat(lane(device).path("sensors")).isEmpty();
    }

    private JsonNode lane(Client device) {
        long seat = device.get("/api/device/seat").body().path("seatId").asLong();
        return owner.get("/api/bench")
                .body()
                .path("lanes")
                .valueStream()
                .filter(l -> l.path("seatId").asLong() == seat)
                .findFirst()
                .orElseThrow();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '"',
            value = {
                "run          | {'arguments':[],'shell':false}                                            | 400",
                "run          | {'arguments':['a','b'],'shell':true}                                      | 422",
                "run          | {'arguments':['a\\u0000b'],'shell':false}                                 | 400",
                "prepare      | {'arguments':['  '],'shell':false}                                        | 400",
                "environment  | {'A B':'c'}                                                               | 400",
                "limitSeconds | 0                                                                         | 400",
                "limitSeconds | 86401                                                                     | 400",
                "expectedExit | 256                                                                       | 400",
                "cache        | 'ICY'                                                                     | 400",
                "between      | {'from':'','to':'x'}                                                      | 400",
                "output       | {'kind':'LINE','expression':'(','unit':'s','direction':'LESS_IS_BETTER'}    | 422",
                "output       | {'kind':'LINE','expression':'none','unit':'s','direction':'LESS_IS_BETTER'} | 422",
                "output       | {'kind':'KEY','expression':'t','unit':'°C','direction':'LESS_IS_BETTER'}   | 422"
            })
    void whatIsNoCommandIsRefusedInWords(String field, String value, int status) {
        Client.Answer answer =
                make("Commands refused", command(Map.of(field, Client.JSON.readTree(value.replace('\'', '"')))));
        assertThat(answer.status()).as(answer.detail()).isEqualTo(status);
        assertThat(answer.detail()).isNotBlank();
    }

    @Test
    void examplesAreCommandsThatASuiteCanBeMadeOf() {
        JsonNode examples = owner.get("/api/suites/commands/examples").body();
        assertThat(examples).hasSizeGreaterThanOrEqualTo(7);
        List<Object> tests = new ArrayList<>();
        examples.forEach(e -> tests.add(
                Map.of("name", e.path("name"), "group", e.path("group").asString(), "command", e.path("command"))));
        Client.Answer made =
                owner.post("/api/suites/commands", Map.of("name", "Everyday programs", "version", "1", "tests", tests));
        assertThat(made.status()).as(made.detail()).isEqualTo(200);
        assertThat(made.body()).hasSize(examples.size());
    }

    @ParameterizedTest
    @CsvSource({"stepMs,0", "kind,Not a kind", "values,[]", "unit,''"})
    void whatIsNoTrackIsRefused(String field, String value) {
        long test =
                make("Commands track " + field, command(Map.of())).body().get(0).asLong();
        Client device = seated(test);
        Map<String, Object> track = new HashMap<>(track("fan", "Fan", "1/min", List.of(1.0)));
        track.put(field, value.equals("[]") ? List.of() : value);
        Map<String, Object> body = new HashMap<>(run(test, 1, ""));
        body.put("tracks", List.of(track));
        assertThat(bench.deliver(device, body).status()).isEqualTo(400);
        assertThat(lines(device)).isEmpty();
    }
}
