package yarrowmark.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A computer that joins by the runner: the program as it is offered, against the server as it is started. */
@Order(5)
class RunnerIT extends AtTheDemo {
    private static final boolean SEVERAL_PROCESSORS = Runtime.getRuntime().availableProcessors() > 1;

    private Rounds rounds;

    @TempDir
    private Path folder;

    RunnerIT() {
        super(Demo.CHANGED);
    }

    @BeforeAll
    void reviewer() {
        rounds = new Rounds(program, browser);
    }

    /** Fetched as a person would, from the bench. */
    private Path jar() throws IOException {
        Path jar = folder.resolve("yarrow-runner.jar");
        if (!Files.exists(jar)) {
            try (InputStream in = URI.create(program.address() + "runner/yarrow-runner.jar")
                    .toURL()
                    .openStream()) {
                Files.copy(in, jar);
            }
        }
        return jar;
    }

    private Process run(String... more) throws IOException {
        List<String> command = new ArrayList<>(List.of(
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "-Xmx256m",
                "-XX:TieredStopAtLevel=1",
                "-jar",
                jar().toString()));
        command.addAll(List.of(more));
        return new ProcessBuilder(command)
                .redirectErrorStream(true)
                .redirectOutput(ProcessBuilder.Redirect.appendTo(said().toFile()))
                .start();
    }

    /** The same with somebody at a terminal, who types that. */
    private Process atTerminal(String typed, String... more) throws IOException {
        String line = Stream.concat(
                        Stream.of(
                                Path.of(System.getProperty("java.home"), "bin", "java")
                                        .toString(),
                                "-Xmx256m",
                                "-XX:TieredStopAtLevel=1",
                                "-jar",
                                jar().toString()),
                        Stream.of(more))
                .collect(Collectors.joining(" "));
        Process process = new ProcessBuilder("script", "-qec", line, "/dev/null")
                .redirectErrorStream(true)
                .redirectOutput(ProcessBuilder.Redirect.appendTo(said().toFile()))
                .start();
        try (OutputStream in = process.getOutputStream()) {
            in.write(typed.getBytes(StandardCharsets.UTF_8));
        }
        return process;
    }

    private Path said() {
        return folder.resolve("said.txt");
    }

    private String words() {
        try {
            return Files.exists(said()) ? Files.readString(said(), StandardCharsets.UTF_8) : "";
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private int ended(Process process) {
        Patience.until(() -> "the runner did not end:\n" + words(), () -> !process.isAlive());
        return process.exitValue();
    }

    private Process join(String code, String... more) throws IOException {
        Path drive = Files.createDirectories(folder.resolve("drive"));
        List<String> arguments = new ArrayList<>(List.of(
                program.address(),
                code,
                "--state",
                folder.resolve("state").toString(),
                "--folder",
                drive.toString(),
                "--quiet-wait",
                "0"));
        arguments.addAll(List.of(more));
        return run(arguments.toArray(String[]::new));
    }

    @Test
    void aPlanIsCarriedOutAndItsScoresAreInTheLedgerWithWhatTheyWereMadeOn() throws Exception {
        Rounds.Invited invited = rounds.invite(
                k -> List.of(
                                "native-weir-hash-one",
                                "native-plot-matrix-all",
                                "native-threads",
                                "native-memory-copy",
                                "weir-hash-one")
                        .contains(k),
                2,
                60);
        assertThat(ended(join(invited.code(), "--plan-only"))).as(words()).isZero();
        assertThat(words())
                .contains("Weir hash, one thread: in a browser only", "Weir hash, native, one thread: 2 runs");
        // Its place is kept: the code is used up, and it goes on with the seat.
        assertThat(ended(join(invited.code(), "--yes", "--new-model", "Fellgate,Tarn " + invited.seatId() + ",laptop")))
                .as(words())
                .isZero();
        List<Rounds.Score> scores = rounds.scores(invited);
        List<String> expected =
                new ArrayList<>(List.of("native-weir-hash-one", "native-plot-matrix-all", "native-memory-copy"));
        // How work grows with threads cannot be told with one.
        if (SEVERAL_PROCESSORS) {
            expected.add("native-threads");
        }
        expected.addAll(List.copyOf(expected));
        assertThat(scores)
                .filteredOn(s -> s.state().equals("OK") && s.first())
                .extracting(Rounds.Score::key)
                .containsExactlyInAnyOrderElementsOf(expected);
        assertThat(scores).filteredOn(Rounds.Score::first).allMatch(s -> s.value() == null || s.value() > 0);
        assertThat(scores)
                .filteredOn(s -> s.key().equals("weir-hash-one"))
                .isNotEmpty()
                .allMatch(s -> s.state().equals("COULD_NOT_RUN"));
        browser.open(program.address() + "shelf?q=Tarn%20" + invited.seatId());
        browser.see("//main//a[contains(., 'Tarn " + invited.seatId() + "')]").click();
        browser.see("//a[contains(@href, '/shelf/configurations/')]").click();
        browser.seeText("Java runtime");
        browser.seeText("Base clock");
        assertThat(browser.complaints()).isEmpty();
    }

    @Test
    void aKilledRunnerLosesNothingAndDoublesNothing() throws Exception {
        Rounds.Invited invited = rounds.invite(
                k -> List.of("native-weir-hash-one", "native-tide-spectrum-one", "native-storage-flushes")
                        .contains(k),
                4,
                150);
        String[] setup = {"--yes", "--new-model", "Fellgate,Tarn " + invited.seatId() + ",laptop"};
        for (int kills = 1; kills <= 3; kills++) {
            int seen = count("run ");
            Process process = join(invited.code(), setup);
            browser.until("some runs", () -> count("run ") > seen || !process.isAlive());
            process.destroyForcibly().waitFor();
        }
        assertThat(ended(join(invited.code(), setup))).as(words()).isZero();
        List<Rounds.Score> good = rounds.scores(invited).stream()
                .filter(s -> s.state().equals("OK") && s.first())
                .toList();
        assertThat(good).extracting(Rounds.Score::key).hasSize(12);
        try (Stream<Path> left = Files.list(folder.resolve("drive"))) {
            assertThat(left).isEmpty();
        }
    }

    private int count(String word) {
        return words().split(word, -1).length - 1;
    }

    @Test
    void whatWasMeasuredWithoutABenchIsReadInByTheLedger() throws Exception {
        String suite = "Harbour tools " + System.nanoTime();
        Path plan = Files.writeString(
                folder.resolve("plan.json"),
                """
                {"maker":"Fellgate","model":"Tarn off","deviceClass":"laptop","runs":2,"timedMs":50,
                 "tests":["native-weir-hash-one","native-plate-filter-all","native-threads",
                  {"suite":"%s","version":"1","test":"List","command":{"run":{"arguments":["ls","-l"]},"limitSeconds":20}}]}
                """
                        .formatted(suite));
        Path scores = folder.resolve("scores.csv");
        // Somebody reads the command at a terminal and agrees; without one, nobody has.
        String[] offline = {
            "--offline",
            plan.toString(),
            "--state",
            folder.resolve("state").toString(),
            "--folder",
            folder.toString(),
            "--out"
        };
        assertThat(ended(run(Stream.concat(Stream.of(offline), Stream.of(folder + "/refused.csv"))
                        .toArray(String[]::new))))
                .as(words())
                .isZero();
        assertThat(Files.readString(folder.resolve("refused.csv"))).contains("has not agreed to its command");
        assertThat(ended(atTerminal(
                        "y\n",
                        Stream.concat(Stream.of(offline), Stream.of(scores.toString()))
                                .toArray(String[]::new))))
                .as(words())
                .isZero();
        assertThat(words()).contains("timed: ls -l", "Carry out the 1 shown above? [y/N]");
        browser.open(program.address() + "ledger");
        browser.see("//h1");
        String told = (String) browser.driver()
                .executeAsyncScript(
                        """
            const [file, done] = arguments;
            const token = document.cookie.match(/XSRF-TOKEN=([^;]+)/)[1];
            (async () => {
                let job = await (await fetch('/api/ledger/import?make=true&store=true', { method: 'POST', headers: { 'Content-Type': 'application/octet-stream', 'X-XSRF-TOKEN': token }, body: file })).json();
                while (job.outcome === undefined && job.problem === undefined) job = await (await fetch('/api/ledger/import/' + job.id)).json();
                done(JSON.stringify(job));
            })();""",
                        Files.readString(scores));
        assertThat(told)
                .as("all of it, and a suite for the command")
                .contains(
                        "\"refusedTotal\":0",
                        "\"newTests\":1",
                        "\"newSuites\":[\"" + suite + " 1\"]",
                        "\"stored\":true");
        assertThat(Files.readString(scores).lines())
                .as("two runs: a number, two numbers, a curve and a number, a time with what else is known of it")
                .filteredOn(l -> l.contains(",ok,"))
                .hasSizeBetween(
                        2 * (1 + 2 + (SEVERAL_PROCESSORS ? 2 : 0) + 1), 2 * (1 + 2 + (SEVERAL_PROCESSORS ? 2 : 0) + 4));
        browser.open(program.address() + "shelf?q=Tarn%20off");
        browser.see("//main//a[contains(., 'Tarn off')]").click();
        browser.see("//a[contains(@href, '/shelf/configurations/')]").click();
        browser.seeText("Without a bench");
        browser.seeText("Java runtime");
        assertThat(browser.complaints()).isEmpty();
    }

    @Test
    void commandsAreMadeInTheBrowserAgreedToAtTheDeviceAndTimed() throws Exception {
        String suite = "Everyday " + System.nanoTime();
        browser.open(program.address() + "suites");
        browser.press("New suite n");
        browser.press("Commands on a computer");
        browser.type("Suite", suite);
        browser.type("Name of command 1", "Count the notes");
        browser.see("//textarea[@aria-label='Timed of command 1']").sendKeys("wc\n-l\nnotes");
        browser.see("//textarea[@aria-label='Preparation of command 1']").sendKeys("seq 200000 > notes");
        browser.press("One more command");
        browser.type("Name of command 2", "Fails");
        browser.see("//textarea[@aria-label='Timed of command 2']").sendKeys("cat\nnothing-of-this-name");
        browser.press("Save suite");
        browser.see("//h2//a[contains(., '" + suite + "')]").click();
        browser.see("//summary[contains(., 'wc -l notes')]").click();
        browser.seeText("seq 200000 > notes");

        Rounds.Invited refused = rounds.invite(k -> k.startsWith("native-command-"), 1, 60);
        String[] setup = {"--yes", "--new-model", "Fellgate,Tarn " + refused.seatId() + ",laptop"};
        assertThat(ended(join(refused.code(), setup))).as(words()).isZero();
        assertThat(rounds.scores(refused))
                .allMatch(s -> s.state().equals("COULD_NOT_RUN"))
                .anySatisfy(s -> assertThat(s.words()).contains("not agreed"));

        Rounds.Invited agreed = rounds.invite(k -> k.startsWith("native-command-"), 2, 60);
        assertThat(ended(join(agreed.code(), "--plan-only"))).isZero();
        assertThat(words()).contains("before (by a shell): 'seq 200000 > notes'", "timed: wc -l notes");
        String number = words().replaceAll("(?s).*have the number ([0-9a-f]{64}).*", "$1");
        assertThat(ended(join(
                        agreed.code(),
                        "--yes",
                        "--commands",
                        number,
                        "--new-model",
                        "Fellgate,Tarn " + agreed.seatId() + ",laptop")))
                .as(words())
                .isZero();
        List<Rounds.Score> scores = rounds.scores(agreed);
        assertThat(scores)
                .filteredOn(s -> s.test().equals("Count the notes") && s.first())
                .hasSize(2)
                .allMatch(s -> s.state().equals("OK") && s.value() > 0 && s.value() < 10);
        assertThat(scores)
                .filteredOn(s -> s.test().equals("Fails"))
                .isNotEmpty()
                .allMatch(s -> s.state().equals("FAILED") && s.words().contains("exit code 1"));
        try (Stream<Path> left = Files.list(folder.resolve("drive"))) {
            assertThat(left).isEmpty();
        }
        browser.open(program.address() + "ledger");
        browser.seeText("Count the notes");
        assertThat(browser.complaints()).isEmpty();
    }

    @Test
    void whatIsWrongIsSaidInWords() throws Exception {
        assertThat(ended(join("WRONG-CODE"))).isEqualTo(1);
        assertThat(words()).contains("code").doesNotContain("Exception");
        assertThat(ended(run(
                        "http://127.0.0.1:9/",
                        "CODE",
                        "--state",
                        folder.resolve("state").toString())))
                .isEqualTo(1);
        assertThat(words()).contains("cannot be reached");
        assertThat(ended(run("not an address", "CODE"))).isEqualTo(2);
        Rounds.Invited invited = rounds.invite("native-storage-read"::equals, 1, 60);
        assertThat(ended(join(invited.code(), "--model", "nothing is called so")))
                .isEqualTo(3);
        assertThat(words()).contains("Nothing was done");
        assertThat(ended(join(invited.code(), "--yes", "--model", "nothing is called so")))
                .isEqualTo(1);
        assertThat(words()).contains("no model called").doesNotContain("Exception", "\tat ");
    }

    @Test
    void theBenchShowsTheLineToCopy() {
        rounds.invite("native-weir-hash-one"::equals, 1, 60);
        browser.open(program.address() + "bench");
        browser.see("//summary[.='A computer without a browser']").click();
        assertThat(browser.see("//*[@data-testid='runner-line']").getText())
                .startsWith("java -jar yarrow-runner.jar http");
        assertThat(browser.complaints()).isEmpty();
    }
}
