package yarrowmark.core.setup;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;

/** Whatever is added to the vocabulary has to fit together: these hold for every entry. */
class VocabularyTest {
    static List<FactKey> entries() {
        return List.copyOf(FactVocabulary.all());
    }

    @ParameterizedTest
    @MethodSource("entries")
    void anEntryIsWhole(FactKey key) {
        assertThat(key.key()).matches("[a-z][a-z0-9_.]+");
        assertThat(key.label()).isNotBlank().doesNotContain("_");
        assertThat(key.isQuantity()).isEqualTo(key.dimension() != Dimension.NONE);
        assertThat(key.type() == FactKey.Type.CHOICE).isEqualTo(!key.choices().isEmpty());
        key.bareUnit().ifPresent(unit -> assertThat(key.dimension().factor(unit))
                .as("the unit a bare number has")
                .isPresent());
        if (key.isQuantity()) {
            assertThat(Double.isFinite(key.least()) && Double.isFinite(key.most()))
                    .as("a quantity has a range")
                    .isTrue();
        }
    }

    @ParameterizedTest
    @MethodSource("entries")
    void noTwoChoicesAreCalledTheSame(FactKey key) {
        for (FactChoice choice : key.choices()) {
            for (String name : choice.alias()) {
                assertThat(FactReader.read(key, name))
                        .as(name)
                        .isInstanceOfSatisfying(FactReader.Understood.class, u -> assertThat(u.value())
                                .isEqualTo(choice.name()));
            }
        }
    }

    @ParameterizedTest
    @MethodSource("entries")
    void theEndsOfARangeAreShownAndReadBack(FactKey key) {
        if (key.isQuantity() && key.least() > 0) {
            String least =
                    new java.math.BigDecimal(key.least()).stripTrailingZeros().toPlainString();
            assertThat(FactReader.read(key, FactReader.exactText(key, least)))
                    .isInstanceOf(FactReader.Understood.class);
        }
    }

    @Test
    void thereAreEnoughInEveryGroupAndLabelsAreUnlike() {
        assertThat(entries()).hasSizeGreaterThanOrEqualTo(60);
        Set<FactGroup> groups = entries().stream().map(FactKey::group).collect(Collectors.toSet());
        assertThat(groups).containsExactlyInAnyOrder(FactGroup.values());
        Set<String> labels =
                entries().stream().map(k -> k.label().toLowerCase(Locale.ROOT)).collect(Collectors.toSet());
        assertThat(labels).hasSameSizeAs(entries());
    }

    @Test
    void theRoomToleratesWhatALabCanHold() {
        FactKey room = FactVocabulary.entry("room.temperature");
        assertThat(room.tolerance().covers(20, 21.5)).isTrue();
        assertThat(room.tolerance().covers(20, 21.51)).isFalse();
    }

    @ParameterizedTest
    @CsvSource({
        "FREQUENCY, GHz, 1e9",
        "FREQUENCY, ghz, 1e9",
        "POWER, mW, 0.001",
        "BYTES, GB, 1e9",
        "MEMORY, GB, 1073741824",
        "BYTES, GiB, 1073741824",
        "BYTES, gib, 1073741824",
        "MEMORY, KiB, 1024",
        "BIT_RATE, Mbps, 1e6",
        "TIME, us, 1e-6",
        "LENGTH, inch, 0.0254",
        "MASS, lb, 453.59237"
    })
    void aUnitIsWorthWhatItIsWorth(Dimension dimension, String unit, double factor) {
        assertThat(dimension.factor(unit).orElseThrow().doubleValue()).isCloseTo(factor, within(factor * 1e-12));
    }

    @ParameterizedTest
    @CsvSource({"BYTES, Gb", "POWER, GHz", "POWER, MW", "MEMORY, GBit", "COUNT, W"})
    void aUnitOfSomethingElseOrInDoubtIsNone(Dimension dimension, String unit) {
        assertThat(dimension.factor(unit)).isEmpty();
    }

    @Test
    void aBodyHasAVolumeAndAThicknessHoweverItsSidesAreCalled() {
        assertThat(new BodySize(0.312, 0.221, 0.0161).litres()).isCloseTo(1.1101272, within(1e-9));
        for (BodySize size :
                List.of(new BodySize(0.3, 0.2, 0.016), new BodySize(0.016, 0.3, 0.2), new BodySize(0.2, 0.016, 0.3))) {
            assertThat(size.thickness()).isEqualTo(0.016);
            assertThat(size.litres()).isCloseTo(0.96, within(1e-12));
        }
        for (double bad : new double[] {0, -1, Double.NaN, Double.POSITIVE_INFINITY}) {
            assertThatThrownBy(() -> new BodySize(bad, 1, 1)).hasMessageContaining("above 0");
        }
        assertThat(new BodySize(0.6, 0.4, 0.032).litres() / new BodySize(0.3, 0.2, 0.016).litres())
                .as("twice the sides, eight times the volume")
                .isCloseTo(8, within(1e-12));
    }
}
