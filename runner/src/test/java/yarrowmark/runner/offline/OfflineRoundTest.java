package yarrowmark.runner.offline;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

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
import yarrowmark.runner.measure.Measurement;

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
                .filteredOn(l -> l.contains(",ok,"))
                .hasSize(4)
                .allMatch(l -> l.startsWith("Fellgate,\"Tarn, 15\",laptop,,'=1+1,Yarrow native processor,1,,"))
                .anyMatch(l ->
                        l.contains("\"Weir hash, native, all threads, per thread\",ops/s,") && l.contains(",617.25,0,"))
                .anyMatch(l -> l.contains(",1234.5,0.0000001,2 threads"));
        assertThat(lines)
                .filteredOn(l -> l.contains("could not run"))
                .singleElement()
                .asString()
                .contains(",no space,,,\"The drive, alas, is full.\"");
        assertThat(lines)
                .filteredOn(l -> l.contains(",failed,error,,,'-1 is no answer"))
                .hasSize(2);
        assertThat(told).anyMatch(l -> l.contains("no room for curves"));
    }

    @Test
    void whatIsNoPlanIsSaidInWords() throws IOException {
        String good = "\"maker\":\"Fellgate\",\"model\":\"Tarn 15\",\"tests\":[\"native-threads\"]";
        OfflinePlan plan = plan("{" + good + "}");
        assertThat(plan.runs()).isEqualTo(3);
        assertThat(plan.timedMs()).isEqualTo(3000);
        for (String[] wrong : new String[][] {
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
            {"{\"maker\":\"a\",\"model\":\"x\",\"tests\":[\"weir-hash-one\"]}", "--tests"}
        }) {
            assertThatThrownBy(() -> plan(wrong[0]))
                    .as(wrong[0])
                    .isInstanceOf(OfflinePlan.Wrong.class)
                    .hasMessageContaining(wrong[1]);
        }
    }
}
