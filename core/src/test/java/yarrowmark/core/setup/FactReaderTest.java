package yarrowmark.core.setup;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class FactReaderTest {
    private static FactReader.Reading read(String key, String typed) {
        return FactReader.read(FactVocabulary.entry(key), typed);
    }

    @Test
    void aValueThatWasNotTypedHasTheSameBounds() {
        FactKey memory = FactVocabulary.entry("memory.size");
        assertThat(FactReader.unfit(memory, "17179869184")).isEmpty();
        assertThat(FactReader.unfit(memory, "9".repeat(400)).orElseThrow()).contains("lies between");
        assertThat(FactReader.unfit(memory, "-1")).isPresent();
        assertThat(FactReader.unfit(memory, "NaN")).isPresent();
        assertThat(FactReader.unfit(memory, "a lot").orElseThrow()).contains("is a number, not \"a lot\"");
        assertThat(FactReader.unfit(FactVocabulary.entry("os.name"), "x".repeat(501))
                        .orElseThrow())
                .contains("501 characters");
        assertThat(FactReader.unfit(FactVocabulary.entry("a.key.of.nobodys"), "9".repeat(400)))
                .isEmpty();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "processor.base_clock | 3,4 GHz | 3400000000 | 3.4 GHz",
                "processor.base_clock | 3400MHz | 3400000000 | 3.4 GHz",
                "memory.size | 16 GB | 17179869184 | 16 GiB",
                "memory.size | 16 GiB | 17179869184 | 16 GiB",
                "memory.size | 16384 MB | 17179869184 | 16 GiB",
                "memory.size | 16 | 17179869184 | 16 GiB",
                "memory.size | 1.5 GiB | 1610612736 | 1.5 GiB",
                "storage.size | 512 GB | 512000000000 | 512 GB",
                "storage.size | 512 GiB | 549755813888 | 512 GiB",
                "storage.size | 2 TB | 2000000000000 | 2 TB",
                "storage.size | 512 110 190 592 B | 512110190592 | 512.1 GB",
                "storage.size | 1'000 gb | 1000000000000 | 1 TB",
                "power.sustained_limit | 28 W | 28 | 28 W",
                "power.sustained_limit | 28 | 28 | 28 W",
                "power.sustained_limit | 28000 mW | 28 | 28 W",
                "room.temperature | 21.5 °C | 21.5 | 21.5 °C",
                "room.temperature | −3,5 | -3.5 | -3.5 °C",
                "room.temperature | 70.7 °F | 21.5 | 21.5 °C",
                "room.temperature | 294.65 K | 21.5 | 21.5 °C",
                "display.resolution | 1920 × 1200 | 1920x1200 | 1920 × 1200",
                "display.diagonal | 14 in | 0.3556 | 14 in",
                "display.diagonal | 35.56 cm | 0.3556 | 14 in",
                "memory.speed | DDR5-5600 | 5600000000 | 5600 MT/s",
                "memory.kind | lpddr5x-8533 | LPDDR5X | LPDDR5X",
                "processor.architecture | AMD64 | x86 64 bit | x86 64 bit",
                "power.source | plugged in | mains | mains",
                "firmware.version | v1.11 | 1.11 | 1.11",
                "firmware.date | 5. 3. 2026 | 2026-03-05 | 2026-03-05",
                "firmware.date | 5 March 2026 | 2026-03-05 | 2026-03-05",
                "firmware.date | 25/03/2026 | 2026-03-25 | 2026-03-25",
                "memory.ecc | On | true | yes",
                "browser.clock_resolution | 5 µs | 0.000005 | 5 µs",
                "battery.capacity | 57000 mWh | 57 | 57 Wh",
                "network.wireless_rate | 866.7 Mbps | 866700000 | 866.7 Mbit/s",
                "own.key | what ever | what ever | what ever",
                "processor.cores | 8 | 8 | 8",
                "memory.swap | 0 B | 0 | 0 B"
            })
    void whatPeopleTypeIsKeptInTheBaseUnitAndShownBack(String key, String typed, String value, String shown) {
        assertThat(read(key, typed)).isInstanceOfSatisfying(FactReader.Understood.class, u -> {
            assertThat(u.value()).isEqualTo(value);
            assertThat(u.shown()).isEqualTo(shown);
        });
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "memory.size | 3.4 GHz | unit of frequency",
                "memory.size | 16 Gb | counts bits",
                "storage.size | 512 | Say the unit",
                "memory.size | 16 GB 28 W | not a unit",
                "processor.base_clock | 1,125 GHz | may mean 1125 GHz or 1.125 GHz",
                "processor.base_clock | 1.234.567 Hz | more than one",
                "processor.cores | 2.5 | whole number",
                "processor.cores | zwölf | does not begin with a number",
                "room.temperature | 300 | between -60 °C and 70 °C",
                "processor.cores | 0 | between 1",
                "firmware.date | 03/05/2026 | may be a day in month",
                "firmware.date | 2026-02-30 | calendar",
                "firmware.date | 2190-01-01 | 2190",
                "power.source | sun | one of mains, battery",
                "memory.ecc | maybe | neither yes nor no",
                "display.resolution | 1920 | width and height",
                "display.resolution | 0x800 | width and height",
                "firmware.version | <b>1</b> | no version",
                "power.sustained_limit | 3 bananas | not a unit",
                "processor.base_clock | 3. GHz | middle of a number",
                "processor.base_clock | 99 GHz | between"
            })
    void whatMayMeanTwoThingsOrNothingIsRefusedWithTheReason(String key, String typed, String reason) {
        assertThat(read(key, typed)).isInstanceOfSatisfying(FactReader.NotUnderstood.class, n -> assertThat(n.reason())
                .contains(reason));
    }

    @Test
    void oneTextMayTellTwoFacts() {
        assertThat(read("memory.speed", "DDR5-5600"))
                .isInstanceOfSatisfying(FactReader.Understood.class, u -> assertThat(u.also())
                        .isEqualTo(Map.of("memory.kind", "DDR5")));
    }

    @Test
    void decimalNamesOfMemoryAreExplained() {
        assertThat(read("memory.size", "16 GB"))
                .isInstanceOfSatisfying(
                        FactReader.Understood.class, u -> assertThat(u.note()).contains("1 GB is 1 GiB"));
        assertThat(read("storage.size", "512 GiB"))
                .isInstanceOfSatisfying(
                        FactReader.Understood.class, u -> assertThat(u.note()).contains("549.8 GB"));
    }

    @Test
    void longAndControlledTextIsRefused() {
        assertThat(read("own.key", "x".repeat(501))).isInstanceOf(FactReader.NotUnderstood.class);
        assertThat(read("own.key", "a\u001B[31mb")).isInstanceOf(FactReader.NotUnderstood.class);
        assertThat(read("own.key", "   ")).isInstanceOf(FactReader.NotUnderstood.class);
    }

    @Test
    void whatIsShownIsUnderstoodAsTheSameAgain() {
        for (FactKey key : FactVocabulary.all()) {
            String example = FactReader.example(key);
            if (!example.isEmpty()) {
                FactReader.Understood first = (FactReader.Understood) FactReader.read(key, example);
                assertThat(FactReader.read(key, first.shown()))
                        .as(key.key())
                        .isInstanceOfSatisfying(FactReader.Understood.class, again -> assertThat(again.value())
                                .isEqualTo(first.value()));
            }
        }
    }

    @ParameterizedTest
    @CsvSource({
        "memory.size, 17179869184, 16 GiB",
        "memory.usable, 16655581184, 16655581184 B",
        "storage.size, 512110190592, 512110190592 B",
        "processor.boost_clock, 4812345678, 4812345678 Hz",
        "room.temperature, 21.53729, 21.53729 °C",
        "power.source, mains, mains",
        "display.diagonal, 0.3557, 0.3557 m"
    })
    void theExactTextIsReadAsTheSameValueToTheLastDigit(String key, String value, String text) {
        assertThat(FactReader.exactText(FactVocabulary.entry(key), value)).isEqualTo(text);
        assertThat(read(key, text)).isInstanceOfSatisfying(FactReader.Understood.class, u -> assertThat(u.value())
                .isEqualTo(value));
    }

    private static String read(FactReader.Reading reading) {
        return reading instanceof FactReader.Understood u
                ? u.value()
                : "not understood: " + ((FactReader.NotUnderstood) reading).reason();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "firmware.date | 12/12/2024 | 2024-12-12",
                "firmware.date | 13/12/2024 | 2024-12-13",
                "firmware.date | 12/13/2024 | 2024-12-13",
                "firmware.date | 1970-01-01 | 1970-01-01",
                "firmware.date | 2100-12-31 | 2100-12-31",
                "power.sustained_limit | +28 W | 28",
                "room.temperature | +21.5 °C | 21.5",
                "room.temperature | -60 | -60",
                "room.temperature | 70 °C | 70",
                "storage.filled | 0 | 0",
                "storage.filled | 100 % | 100",
            })
    void whatLiesJustWithinItsBoundsIsTaken(String key, String typed, String value) {
        assertThat(read(read(key, typed))).isEqualTo(value);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "firmware.date | 12/11/2024 | may be a day in month 12",
                "firmware.date | 11/12/2024 | may be a day in month 11",
                "firmware.date | 1969-12-31 | out of range",
                "firmware.date | 2101-01-01 | out of range",
                "firmware.date | some day | is no date",
                "firmware.date | 2026-02-30 | not in the calendar",
                "room.temperature | 70.1 | lies between",
                "room.temperature | -60.1 | lies between",
                "room.temperature | 21 W | Room temperature is",
                "storage.filled | -1 | lies between",
                "storage.filled | 101 | lies between",
                "storage.size | 512 | GB or GiB",
                "memory.size | 16 Gbit | counts bits",
                "storage.size | 16 Gbit | counts bits",
            })
    void whatLiesJustOutsideIsRefusedWithItsReason(String key, String typed, String reason) {
        assertThat(read(read(key, typed))).startsWith("not understood: ").contains(reason);
    }

    @Test
    void aUnitOfBitsIsOnlySpokenOfWhereBytesAreWanted() {
        assertThat(read(read("processor.base_clock", "16 Gbit")))
                .startsWith("not understood: ")
                .doesNotContain("counts bits");
    }

    @Test
    void theLongestAndTheLargestAreStillFit() {
        FactKey name = FactVocabulary.entry("os.name");
        assertThat(FactReader.unfit(name, "x".repeat(500))).isEmpty();
        assertThat(read(FactReader.read(name, "x".repeat(500)))).hasSize(500);
        assertThat(read(FactReader.read(name, "x".repeat(501)))).contains("501 characters");
        FactKey memory = FactVocabulary.entry("memory.size");
        assertThat(FactReader.unfit(memory, Long.toString(1 << 20))).isEmpty();
        assertThat(FactReader.unfit(memory, Long.toString((1 << 20) - 1))).isPresent();
        assertThat(FactReader.unfit(memory, Long.toString(65536L << 30))).isEmpty();
        assertThat(FactReader.unfit(memory, Long.toString((65536L << 30) + (1 << 20))))
                .isPresent();
    }
}
