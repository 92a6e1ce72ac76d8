package yarrowmark.core.setup;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class SetupComparisonTest {
    private static final Map<String, String> BEFORE = Map.of(
            "firmware.version",
            "1.9",
            "memory.size",
            "8589934592",
            "room.temperature",
            "21.5",
            "power.mode",
            "balanced",
            "cooling.kind",
            "fan");
    private static final Map<String, String> AFTER = Map.of(
            "firmware.version",
            "1.11",
            "memory.size",
            "17179869184",
            "room.temperature",
            "20",
            "power.mode",
            "balanced",
            "power.source",
            "mains");

    @Test
    void theChangeUnderTestComesFirstThenWhatChangedAsWellThenWhatIsWithinTolerance() {
        SetupComparison c = SetupComparison.of(List.of(BEFORE, AFTER), 0, Set.of("firmware.version", "os.name"));
        assertThat(c.differing())
                .extracting(r -> r.key().key() + " " + r.role())
                .containsExactly(
                        "firmware.version UNDER_TEST", "memory.size ALSO_CHANGED", "room.temperature WITHIN_TOLERANCE");
        assertThat(c.differing().get(0).changes())
                .containsExactly(Optional.empty(), Optional.of(new FactChange.Newer()));
        assertThat(c.differing().get(1).changes().get(1)).contains(new FactChange.Ratio(2));
        assertThat(c.differing().get(2).changes().get(1)).contains(new FactChange.Shift(-1.5));
        assertThat(c.partly()).extracting(r -> r.key().key()).containsExactly("power.source", "cooling.kind");
        assertThat(c.same()).extracting(r -> r.key().key()).containsExactly("power.mode");
        assertThat(c.alsoChanged()).hasSize(1);
    }

    @Test
    void whatUsuallyMovesScoresMostIsToldFirst() {
        Map<String, String> facts = Map.of(
                "firmware.version",
                "1",
                "os.kernel",
                "6.1",
                "storage.model",
                "Reed 500",
                "processor.name",
                "Thessaly 5");
        Map<String, String> others = Map.of(
                "firmware.version",
                "2",
                "os.kernel",
                "6.9",
                "storage.model",
                "Reed 900",
                "processor.name",
                "Thessaly 7");
        assertThat(SetupComparison.of(List.of(facts, others), 0, Set.of()).differing())
                .extracting(r -> r.key().key())
                .containsExactly("processor.name", "storage.model", "os.kernel", "firmware.version");
    }

    @Test
    void swappingTheBaseInvertsRatiosAndTurnsNewerIntoOlder() {
        SetupComparison c = SetupComparison.of(List.of(BEFORE, AFTER), 1, Set.of());
        assertThat(c.differing())
                .filteredOn(r -> r.key().key().equals("memory.size"))
                .first()
                .satisfies(r -> assertThat(r.changes().get(0)).contains(new FactChange.Ratio(0.5)));
        assertThat(c.differing())
                .filteredOn(r -> r.key().key().equals("firmware.version"))
                .first()
                .satisfies(r -> assertThat(r.changes().get(0)).contains(new FactChange.Older()));
    }

    @Test
    void theOrderOfConfigurationsChangesNothingButTheOrderOfValues() {
        Map<String, String> third = Map.of("room.temperature", "24", "power.mode", "quiet");
        List<Map<String, String>> setups = new ArrayList<>(List.of(BEFORE, AFTER, third));
        List<String> roles = SetupComparison.of(setups, 0, Set.of()).differing().stream()
                .map(r -> r.key().key() + r.role())
                .toList();
        Collections.reverse(setups);
        assertThat(SetupComparison.of(setups, 2, Set.of()).differing().stream()
                        .map(r -> r.key().key() + r.role())
                        .toList())
                .isEqualTo(roles);
        assertThat(roles).contains("room.temperatureALSO_CHANGED");
    }

    @Test
    void oneConfigurationOrNoSuchBaseIsRefused() {
        assertThatThrownBy(() -> SetupComparison.of(List.of(BEFORE), 0, Set.of()))
                .hasMessageContaining("two");
        assertThatThrownBy(() -> SetupComparison.of(List.of(BEFORE, AFTER), 2, Set.of()))
                .isInstanceOf(IndexOutOfBoundsException.class);
    }

    @Test
    void oldTextUnderANumbersKeyIsStillCompared() {
        SetupComparison c = SetupComparison.of(
                List.of(Map.of("memory.size", "a lot"), Map.of("memory.size", "8589934592")), 0, Set.of());
        assertThat(c.differing().get(0).role()).isEqualTo(SetupComparison.Role.ALSO_CHANGED);
        assertThat(c.differing().get(0).changes().get(1)).contains(new FactChange.Other());
    }

    @ParameterizedTest
    @CsvSource({
        "5.9, 5.10",
        "1.0, 1.0.1",
        "2.0-rc1, 2.0",
        "2.0-beta, 2.0-rc1",
        "9, 10.0.1",
        "1.2a, 1.2.1",
        "6.1.0-18, 6.1.0-20",
        "23E224, 23F79",
        "2.0-rc1, 2.0.1"
    })
    void versionsAreCountedAsPeopleCountThem(String older, String newer) {
        assertThat(VersionOrder.INSTANCE.compare(older, newer)).isNegative();
        assertThat(VersionOrder.INSTANCE.compare(newer, older)).isPositive();
        assertThat(VersionOrder.INSTANCE.compare(newer, newer.replace('.', '-')))
                .isZero();
    }

    @ParameterizedTest
    @CsvSource({
        "processor.cores, 12, processor.threads, 8",
        "processor.base_clock, 4000000000, processor.boost_clock, 3000000000",
        "power.sustained_limit, 30, power.short_limit, 20"
    })
    void factsThatCannotBothBeTrueAreNamed(String first, String a, String second, String b) {
        assertThat(FactContradiction.in(Map.of(first, a, second, b)))
                .singleElement()
                .satisfies(c -> {
                    assertThat(c.keys()).containsExactly(first, second);
                    assertThat(c.reason()).contains("contradict");
                });
        assertThat(FactContradiction.in(Map.of(first, b, second, a))).isEmpty();
        assertThat(FactContradiction.in(Map.of(first, a, second, "many"))).isEmpty();
    }

    @ParameterizedTest
    @CsvSource({
        "1.5, 0, 20, 21.5, true",
        "1.5, 0, 20, 21.6, false",
        "0, 0.01, 100, 101, true",
        "0, 0.01, 100, 102, false",
        "0, 0, 1, 1, true"
    })
    void aToleranceCoversWhatItSaysFromBothSides(
            double absolute, double relative, double a, double b, boolean covered) {
        Tolerance t = new Tolerance(absolute, relative);
        assertThat(t.covers(a, b)).isEqualTo(covered).isEqualTo(t.covers(b, a));
    }
}
