package yarrowmark.runner.offline;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.tuple;

import java.io.IOException;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import yarrowmark.runner.NativeTest;
import yarrowmark.runner.command.CommandFailed;
import yarrowmark.runner.measure.Measurement;
import yarrowmark.runner.protocol.Api;
import yarrowmark.runner.storage.StorageTests;
import yarrowmark.runner.storage.WriteBudget;

class OfflineRoundTest {
    private static final Set<String> KNOWN =
            Set.of("native-weir-hash-one", "native-weir-hash-all", "native-threads", "native-storage-read");

    @TempDir
    private Path folder;

    private final List<String> told = new ArrayList<>();

    private OfflinePlan plan(String json) throws IOException {
        return OfflinePlan.read(Files.writeString(folder.resolve("plan.json"), json), KNOWN);
    }

    private String carriedOut(Map<String, NativeTest> tests) throws Exception {
        OfflinePlan plan = plan(
                "{\"maker\":\"Fellgate\",\"model\":\"Tarn, 15\",\"deviceClass\":\"Laptop\",\"runs\":2,\"timedMs\":10,\"tests\":[\"native-weir-hash-all\",\"native-threads\",\"native-storage-read\",\"native-weir-hash-one\"]}");
        Map<String, String> facts = new LinkedHashMap<>();
        facts.put("os.name", "=1+1");
        Path file = folder.resolve("scores.csv");
        new OfflineRound(plan, facts, tests, new NativeTest.Options(10, 2, folder), told::add).run(file);
        assertThatThrownBy(() -> new OfflineRound(plan, facts, tests, new NativeTest.Options(10, 2, folder), told::add)
                        .run(file))
                .isInstanceOf(FileAlreadyExistsException.class);
        return Files.readString(file);
    }

    @Test
    void eachNumberHasARowThatTheLedgerReads() throws Exception {
        Map<String, NativeTest> tests = new LinkedHashMap<>();
        tests.put(
                "native-weir-hash-all",
                o -> new Measurement(
                        1234.5,
                        1e-7,
                        List.of(),
                        10,
                        List.of(new Measurement.More("per-thread", 617.25, 0)),
                        "2 threads"));
        tests.put(
                "native-threads",
                o -> Measurement.ofCurve(
                        List.of(new Measurement.Point(1, 100.25), new Measurement.Point(2, 1.5e-7)),
                        10,
                        List.of(),
                        null));
        tests.put("native-storage-read", new NativeTest() {
            @Override
            public Optional<Obstacle> obstacle(Options options) {
                return Optional.of(new Obstacle("NO_SPACE", "The drive, alas, is full."));
            }

            @Override
            public Measurement run(Options options) {
                throw new AssertionError();
            }
        });
        tests.put("native-weir-hash-one", o -> {
            throw new IllegalStateException("-1 is no answer");
        });
        List<String> lines = carriedOut(tests).lines().toList();
        assertThat(lines.get(0)).startsWith("maker,model,class,unit,fact:os.name,suite,version,mode,test,metric,");
        assertThat(lines)
                .filteredOn(l -> l.contains(",ok,") && !l.contains("\"1; 100.25"))
                .hasSize(4)
                .allMatch(l -> l.startsWith("Fellgate,\"Tarn, 15\",laptop,,'=1+1,Yarrow native processor,1,,"))
                .anyMatch(l ->
                        l.contains("\"Weir hash, native, all threads, per thread\",ops/s,") && l.contains(",617.25,0,"))
                .anyMatch(l -> l.contains(",1234.5,0.0000001,,2 threads"));
        assertThat(lines)
                .filteredOn(l -> l.contains("could not run"))
                .singleElement()
                .asString()
                .contains(",no space,,,,\"The drive, alas, is full.\"");
        assertThat(lines)
                .filteredOn(l -> l.contains(",failed,error,,,,'-1 is no answer"))
                .hasSize(2);
        assertThat(String.join("\n", lines)).as("a curve").contains(",ok,,,,\"1; 100.25\n2; 0.00000015\",");
    }

    @Test
    void whatWasCarriedOutBeforeARunnerWasKilledIsNotDoneAgain() throws Exception {
        OfflinePlan plan = plan(
                "{\"maker\":\"Fellgate\",\"model\":\"Tarn 15\",\"runs\":2,\"timedMs\":10,\"tests\":[\"native-weir-hash-all\",\"native-weir-hash-one\"]}");
        Path file = folder.resolve("plan-1.csv");
        List<String> begun = new ArrayList<>();
        Map<String, NativeTest> tests = new LinkedHashMap<>();
        tests.put("native-weir-hash-all", o -> {
            begun.add("all");
            return new Measurement(
                    3, 0, List.of(), 10, List.of(new Measurement.More("per-thread", 1.5, 0)), "said \"so\"\r\ntwice");
        });
        tests.put("native-weir-hash-one", o -> {
            begun.add("one");
            throw new Killed();
        });
        NativeTest.Options options = new NativeTest.Options(10, 2, folder);
        assertThatThrownBy(() -> new OfflineRound(plan, Map.of(), tests, options, told::add).run(file))
                .isInstanceOf(Killed.class);
        assertThat(file).doesNotExist();
        assertThat(OfflineRound.begunBeside(folder.resolve("plan.json"))).hasValue(file);
        Path part = folder.resolve("plan-1.csv.part");
        Files.writeString(part, Files.readString(part) + "Fellgate,\"Tarn");
        tests.put("native-weir-hash-one", o -> {
            begun.add("one");
            return new Measurement(7, 0, List.of(), 10, List.of(), null);
        });
        new OfflineRound(plan, Map.of(), tests, options, told::add).run(file);
        assertThat(begun).containsExactly("all", "all", "one", "one", "one");
        assertThat(told).anyMatch(l -> l.startsWith("Goes on"));
        assertThat(part).doesNotExist();
        assertThat(Files.readString(file).split("\r\n(?=Fellgate)")).hasSize(7);
        assertThat(OfflineRound.begunBeside(folder.resolve("plan.json"))).isEmpty();
    }

    @Test
    void whatTurnsOutToBeImpossibleIsNoFailureAndNotTriedAgain() throws Exception {
        OfflinePlan plan = plan(
                "{\"maker\":\"Fellgate\",\"model\":\"Tarn 15\",\"runs\":3,\"timedMs\":10,\"tests\":[\"native-storage-read\",\"native-weir-hash-one\"]}");
        Path file = folder.resolve("scores.csv");
        WriteBudget none = new WriteBudget(0);
        Map<String, NativeTest> tests = new LinkedHashMap<>(new StorageTests(none, 1 << 20, 0).all());
        tests.put("native-weir-hash-one", o -> {
            throw new CommandFailed(Api.Reason.NOT_SUPPORTED, "It cannot be begun here.", "");
        });
        new OfflineRound(plan, Map.of(), tests, new NativeTest.Options(10, 2, folder), told::add).run(file);
        assertThat(Files.readString(file).lines().skip(1).toList())
                .hasSize(2)
                .allMatch(l -> l.contains(",could not run,"))
                .anyMatch(l -> l.contains(",write limit,"))
                .anyMatch(l -> l.contains(",not supported,"));
    }

    @Test
    void aPartialFileOfSomethingElseIsNotTouched() throws Exception {
        OfflinePlan plan = plan(
                "{\"maker\":\"Fellgate\",\"model\":\"Tarn 15\",\"runs\":1,\"timedMs\":10,\"tests\":[\"native-weir-hash-one\"]}");
        Path part = Files.writeString(folder.resolve("scores.csv.part"), "a,b\r\n1,2\r\n");
        assertThatThrownBy(() -> new OfflineRound(
                                plan, Map.of(), Map.of(), new NativeTest.Options(10, 2, folder), told::add)
                        .run(folder.resolve("scores.csv")))
                .hasMessageContaining("other facts");
        assertThat(part).hasContent("a,b\n1,2\n");
    }

    private static final class Killed extends Error {
        private static final long serialVersionUID = 1L;
    }

    @Test
    void commandsStandBesideTheBuiltInTests() throws Exception {
        OfflinePlan plan = plan(
                """
                {"maker":"Fellgate","model":"Tarn 15","runs":1,"tests":["native-weir-hash-one",
                 {"suite":"Harbour tools","version":"2","mode":"fast","test":"Pack, small","command":{"run":{"arguments":["tar","c"]},"limitSeconds":5}},
                 {"suite":"Harbour tools","version":"2","mode":"fast","test":"Printed","command":{"run":{"arguments":["say"]},"limitSeconds":5,"output":{"kind":"KEY","expression":"speed","unit":"MB/s","direction":"MORE_IS_BETTER"}}}]}
                """);
        assertThat(plan.commands())
                .extracting("key", "name")
                .containsExactly(tuple("command-2", "Pack, small"), tuple("command-3", "Printed"));
        assertThat(plan.commands().get(0).command().cache()).isEqualTo(Api.Cache.AS_IT_IS);
        Map<String, NativeTest> tests = new LinkedHashMap<>();
        tests.put("native-weir-hash-one", o -> new Measurement(1, 0, List.of(), 10, List.of(), null));
        tests.put(
                "command-2",
                o -> new Measurement(
                        2.5,
                        0.001,
                        List.of(),
                        2500,
                        List.of(
                                new Measurement.More("peak-memory", 4096, 1024),
                                new Measurement.More("temperature-highest", 71, 1)),
                        null));
        tests.put("command-3", o -> new Measurement(0.5, 0.001, List.of(), 500, List.of(), null)
                .withOutput("warming up\nspeed: 1.50 GB/s\n"));
        Path file = folder.resolve("scores.csv");
        new OfflineRound(plan, Map.of(), tests, new NativeTest.Options(10, 2, folder), told::add).run(file);
        assertThat(Files.readString(file).lines().skip(1).toList())
                .hasSize(5)
                .anyMatch(l -> l.contains(",Printed,Printed,MB/s,more,") && l.contains(",1500,10,,"))
                .anyMatch(l -> l.contains(",Printed,\"Printed, time\",s,less,") && l.contains(",0.5,0.001,,"))
                .anyMatch(
                        l -> l.contains("Harbour tools,2,fast,\"Pack, small\",\"Pack, small\",s,less,Without a bench,"))
                .anyMatch(l -> l.contains("\"Pack, small, peak memory\",B,less,") && l.contains(",4096,1024,,"));
    }

    @Test
    void whatPrintsNoScoreFailedAndSaysWhy() throws Exception {
        OfflinePlan plan = plan(
                commandPlan(
                        ",\"command\":{\"run\":{\"arguments\":[\"say\"]},\"limitSeconds\":5,\"output\":{\"kind\":\"LINE\",\"expression\":\"took ([0-9.]+)\",\"unit\":\"s\",\"direction\":\"LESS_IS_BETTER\"}}"));
        Path file = folder.resolve("scores.csv");
        new OfflineRound(
                        plan,
                        Map.of(),
                        Map.of("command-1", o -> new Measurement(0.5, 0.001, List.of(), 500, List.of(), null)),
                        new NativeTest.Options(10, 2, folder),
                        told::add)
                .run(file);
        assertThat(Files.readString(file).lines().skip(1).toList())
                .hasSize(3)
                .allMatch(l -> l.contains(",failed,wrong answer,,,,Nothing in the text is like this."));
    }

    private static String commandPlan(String more) {
        return "{\"maker\":\"a\",\"model\":\"x\",\"tests\":[{\"suite\":\"s\",\"version\":\"1\",\"test\":\"t\"" + more
                + "}]}";
    }

    @Test
    void whatIsNoPlanIsSaidInWords() throws IOException {
        String good = "\"maker\":\"Fellgate\",\"model\":\"Tarn 15\",\"tests\":[\"native-threads\"]";
        OfflinePlan plan = plan("{" + good + "}");
        assertThat(plan.runs()).isEqualTo(3);
        assertThat(plan.timedMs()).isEqualTo(3000);
        for (String[] wrong : new String[][] {
            {
                commandPlan(
                        ",\"command\":{\"run\":{\"arguments\":[\"say\"]},\"limitSeconds\":5,\"output\":{\"kind\":\"KEY\"}}"),
                "what is better (direction: LESS_IS_BETTER or MORE_IS_BETTER)"
            },
            {
                commandPlan(
                        ",\"command\":{\"run\":{\"arguments\":[\"say\"]},\"limitSeconds\":5,\"output\":{\"kind\":\"LINE\",\"expression\":\"took s\",\"unit\":\"s\",\"direction\":\"LESS_IS_BETTER\"}}"),
                "put the number in brackets"
            },
            {"", "no plan"},
            {"{", "no plan"},
            {"null", "empty"},
            {"[]", "no plan"},
            {"{" + good + ",\"runns\":2}", "runns"},
            {"{" + good + ",\"runs\":0}", "runs is 1 to 50"},
            {"{" + good + ",\"runs\":\"many\"}", "no plan"},
            {"{" + good + ",\"timedMs\":99999999}", "timedMs"},
            {"{" + good + ",\"deviceClass\":\"submarine\"}", "submarine"},
            {"{\"maker\":\"\",\"model\":\"x\",\"tests\":[\"native-threads\"]}", "maker"},
            {"{\"maker\":\"a\",\"model\":\"x\",\"tests\":[]}", "no tests"},
            {"{\"maker\":\"a\",\"model\":\"x\",\"tests\":[null]}", "no test"},
            {"{\"maker\":\"a\",\"model\":\"x\",\"tests\":[\"weir-hash-one\"]}", "--tests"},
            {"{\"maker\":\"a\",\"model\":\"x\",\"tests\":[7]}", "no test “7”"},
            {commandPlan(""), "does not say its command"},
            {commandPlan(",\"command\":\"ls\""), "does not say its command"},
            {commandPlan(",\"command\":{}"), "needs what it runs"},
            {commandPlan(",\"command\":{\"run\":{\"arguments\":[]},\"limitSeconds\":5}"), "needs what it runs"},
            {
                commandPlan(",\"command\":{\"run\":{\"arguments\":[\"a\\u0000\"]},\"limitSeconds\":5}"),
                "needs what it runs"
            },
            {
                commandPlan(",\"command\":{\"run\":{\"arguments\":[\"a\",\"b\"],\"shell\":true},\"limitSeconds\":5}"),
                "needs what it runs"
            },
            {commandPlan(",\"command\":{\"run\":{\"arguments\":[\"a\"]}}"), "limitSeconds of 1 to"},
            {commandPlan(",\"command\":{\"run\":7}"), "cannot be read"},
            {commandPlan(",\"shell\":true"), "cannot be read"},
            {
                "{\"maker\":\"a\",\"model\":\"x\",\"tests\":[{\"command\":{\"run\":{\"arguments\":[\"a\"]},\"limitSeconds\":5}}]}",
                "suite"
            }
        }) {
            assertThatThrownBy(() -> plan(wrong[0]))
                    .as(wrong[0])
                    .isInstanceOf(OfflinePlan.Wrong.class)
                    .hasMessageContaining(wrong[1]);
        }
    }
}
