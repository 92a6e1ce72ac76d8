package yarrowmark.runner;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import yarrowmark.runner.kernel.ProcessorTests;
import yarrowmark.runner.memory.MemoryTests;
import yarrowmark.runner.storage.StorageTests;
import yarrowmark.runner.storage.WriteBudget;

/** What the bench can ask for is what the runner can do. */
class NativeSuitesTest {
    @Test
    void everyTestOfTheSuitesIsThereAndNoOther() throws IOException {
        Map<String, NativeTest> tests = new LinkedHashMap<>(ProcessorTests.all());
        tests.putAll(MemoryTests.all());
        tests.putAll(new StorageTests(new WriteBudget(0), 1 << 20, 0).all());
        Set<String> asked = new HashSet<>();
        try (InputStream in = NativeTest.class.getResourceAsStream("/yarrowmark/workloads/native-suites.json")) {
            for (JsonNode suite : new JsonMapper().readTree(in).path("suites")) {
                suite.path("tests")
                        .forEach(t ->
                                assertThat(asked.add(t.path("key").asString())).isTrue());
            }
        }
        assertThat(tests.keySet()).isEqualTo(asked).allMatch(k -> k.startsWith("native-"));
    }
}
