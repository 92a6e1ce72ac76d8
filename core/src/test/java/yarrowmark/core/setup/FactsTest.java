package yarrowmark.core.setup;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class FactsTest {
    @ParameterizedTest
    @CsvSource({
        "memory.size, 34359738368, 32 GiB",
        "storage.size, 512000000000, 512 GB",
        "processor.base_clock, 3400000000, 3.4 GHz",
        "display.refresh, 60, 60 Hz",
        "browser.clock_resolution, 0.000005, 5 µs",
        "room.temperature, 21.5, 21.5 °C",
        "power.sustained_limit, 28, 28 W",
        "browser.isolated, true, yes",
        "memory.speed, 5600000000, 5600 MT/s",
        "processor.threads, 16, 16",
        "memory.size, a lot, a lot",
        "own.key, whatever, whatever",
        // Where a unit gives way to the next one.
        "browser.clock_resolution, 0.001, 1 ms",
        "browser.clock_resolution, 0.5, 500 ms",
        "browser.clock_resolution, 1, 1 s",
        "browser.clock_resolution, 0, 0 ms",
        "browser.isolated, false, no",
        "browser.isolated, perhaps, perhaps",
        "display.resolution, 1920x1200, 1920 × 1200",
        "storage.size, 1048576, 1 MiB",
        "storage.size, 1048575, 1.049 MB",
        "storage.size, 1180696576, 1.181 GB",
        "storage.size, 5000000000000000000, 5000 PB"
    })
    void aKeptValueIsShownAsPeopleWriteIt(String key, String value, String shown) {
        assertThat(FactText.of(FactVocabulary.entry(key), value)).isEqualTo(shown);
    }

    @Test
    void aCopyIsCalledByWhatChanged() {
        Map<String, String> before =
                Map.of("firmware.version", "1.04", "memory.size", "17179869184", "os.name", "Fenland");
        Map<String, String> after =
                Map.of("firmware.version", "1.11", "memory.size", "17179869184", "power.sustained_limit", "20");
        List<FactDifference> differences = FactDifference.between(before, after);
        assertThat(differences)
                .extracting(d -> d.key().key())
                .containsExactly("firmware.version", "os.name", "power.sustained_limit");
        assertThat(FactDifference.name(differences)).isEqualTo("firmware 1.11, power limit 20 W");
    }

    @Test
    void whatChangedComesBeforeWhatWasNotKnown() {
        Map<String, String> before = Map.of("power.mode", "balanced");
        Map<String, String> after =
                Map.of("power.mode", "quiet", "memory.size", "8589934592", "browser.isolated", "true");
        assertThat(FactDifference.name(FactDifference.between(before, after)))
                .isEqualTo("power mode quiet, memory 8 GiB");
        assertThat(FactDifference.name(FactDifference.between(Map.of(), Map.of("browser.isolated", "true"))))
                .isEmpty();
    }

    @Test
    void manyChangesAreCounted() {
        Map<String, String> after = IntStream.range(0, 5).boxed().collect(Collectors.toMap(i -> "own.k" + i, i -> "v"));
        assertThat(FactDifference.name(FactDifference.between(Map.of(), after)))
                .isEqualTo("own.k0 v, own.k1 v, own.k2 v and 2 more");
    }

    @Test
    void theFingerprintDependsOnFactsAlone() {
        Map<String, String> one = new LinkedHashMap<>();
        one.put("a", "1");
        one.put("b", "2");
        Map<String, String> other = new LinkedHashMap<>();
        other.put("b", "2");
        other.put("a", "1");
        assertThat(Fingerprint.of(one)).isEqualTo(Fingerprint.of(other)).hasSize(64);
        assertThat(Fingerprint.of(Map.of("ab", "c"))).isNotEqualTo(Fingerprint.of(Map.of("a", "bc")));
    }

    @Test
    void everyKeyOfTheVocabularyIsFound() {
        assertThat(FactVocabulary.all())
                .allSatisfy(k -> assertThat(FactVocabulary.find(k.key())).contains(k));
        assertThat(FactVocabulary.find("no.such")).isEmpty();
        assertThat(FactVocabulary.entry("no.such").group()).isEqualTo(FactGroup.OTHER);
    }

    @Test
    void threeChangesAreNamedAndNoneIsLeftToCount() {
        Map<String, String> after = IntStream.range(0, 3).boxed().collect(Collectors.toMap(i -> "own.k" + i, i -> "v"));
        assertThat(FactDifference.name(FactDifference.between(Map.of(), after)))
                .isEqualTo("own.k0 v, own.k1 v, own.k2 v");
    }

    @Test
    void howAValueChangedDependsOnItsKind() {
        assertThat(change("os.name", "Fenland", "Sedge")).contains(new FactChange.Other());
        assertThat(change("firmware.date", "2026-03-01", "2026-04-01")).contains(new FactChange.Newer());
        assertThat(change("firmware.date", "2026-03-01", "2025-04-01")).contains(new FactChange.Older());
        assertThat(change("firmware.version", "1.0", "1.00"))
                .as("another way to write the same version")
                .contains(new FactChange.Other());
        assertThat(change("network.walls", "0", "5")).contains(new FactChange.Shift(5));
        assertThat(change("network.walls", "5", "0")).contains(new FactChange.Shift(-5));
        assertThat(change("network.walls", "2", "5")).contains(new FactChange.Ratio(2.5));
        assertThat(change("network.walls", "2", "2.0")).isEmpty();
    }

    private static Optional<FactChange> change(String key, String earlier, String later) {
        return FactChange.between(FactVocabulary.entry(key), earlier, later);
    }

    @Test
    void wordsOfAVersionStandInTheOrderOfFinishing() {
        List<String> order = List.of("2-dev", "2-alpha", "2-beta", "2-rc", "2-build", "2-final");
        for (int i = 1; i < order.size(); i++) {
            assertThat(VersionOrder.INSTANCE.compare(order.get(i - 1), order.get(i)))
                    .as(order.get(i))
                    .isNegative();
        }
    }

    @Test
    void asManyCoresAsThreadsAreNoContradiction() {
        assertThat(FactContradiction.in(Map.of("processor.cores", "8", "processor.threads", "8")))
                .isEmpty();
        assertThat(FactContradiction.in(Map.of("processor.cores", "8", "processor.threads", "4")))
                .hasSize(1);
    }

    @Test
    void everyGroupOfFactsIsCalledSomething() {
        assertThat(FactGroup.values())
                .extracting(FactGroup::label)
                .doesNotHaveDuplicates()
                .doesNotContain("");
    }
}
