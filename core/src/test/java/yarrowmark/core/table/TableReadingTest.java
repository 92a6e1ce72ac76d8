package yarrowmark.core.table;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import yarrowmark.core.measure.Direction;

/** Made-up sheets of the kinds that people keep, each read without a touch. */
class TableReadingTest {
    private static final String MINIS =
            """
            Device | Tested | Price | CPU | RAM | Export | Archive (2x) |  | Harbour avg | 1% | Average
            Ostler Cob mini | 12.03.26 | 799 € | Corvane 7 | 16 GB | 58 | 96,2 | 95,8 | 52.6 | 31 | 66,72
            Ostler Fell | 14.03.26 | 379 € | Corvane 3 | 8 GB | 1:12 | 141,0 | 139,5 | 24.1 | 12 | 77,72
            Tarn Nook 2 | 20.03.26 | 449 € | Brae 5 | 16 | crash on export | 118,9 | 120,2 | 38.8 | 22 | –
            Tarn Nook 2 * | 21.03.26 | 449 € | Brae 5 | 16 | 66 | 112,4 | 113,0 | 41.7 | 25 | 82
            Quenby Wren | 02.04.26 | 629 € | Thessaly 5 | 32 GB | 61 | 101,1 | n/a | 47.0 | 29 | 59,52
            Larkspur Peg | 03.04.26 | 549 € | Corvane 5 | 16 GB | 64 | 109,3 | 108,8 | DNF | – | 94,03
            Pellow Spar | 09.04.26 | 119 € | Brae 1c | 4 GB | 148 | 311,5 | 309,9 | 9.4 | 4 | 156,56

            * with power limit raised to 54 W
            """;

    static Table table(String text) {
        return new Table(
                "Sheet 1",
                text.lines()
                        .map(l -> Arrays.stream(l.split("\\|", -1))
                                .map(TableCell::of)
                                .toList())
                        .collect(Collectors.toList()));
    }

    private static TableReading read(String text, String name) {
        Table table = table(text);
        return TableReading.of(table, LayoutGuess.of(table, name, "2026-05-01", KnownNames.NONE), KnownNames.NONE);
    }

    private static String roles(TableLayout layout) {
        return layout.columns().stream()
                .map(p -> switch (p.role()) {
                    case TEST ->
                        p.name() + (p.metric().isEmpty() ? "" : ", " + p.metric()) + " in " + p.unit()
                                + (p.run() > 1 ? ", run " + p.run() : "");
                    case FACT, MODEL_FIELD -> p.name();
                    default -> p.role().name();
                })
                .collect(Collectors.joining(" | "));
    }

    private static Optional<Double> score(TableReading reading, String device, String test, int run) {
        int row = reading.devices().stream()
                .filter(d -> d.name().equals(device))
                .findFirst()
                .orElseThrow()
                .row();
        return reading.scores().stream()
                .filter(s -> s.row() == row
                        && s.test().name().equals(test)
                        && s.test().run() == run)
                .findFirst()
                .orElseThrow()
                .value();
    }

    @Test
    void aDeviceARowWithRunsMetricsWordsAndATotal() {
        TableLayout layout = LayoutGuess.of(table(MINIS), "minis-2026.xlsx", "2026-05-01", KnownNames.NONE);
        assertThat(layout.across()).isFalse();
        assertThat(roles(layout))
                .isEqualTo(
                        "MODEL | DATE | price | processor.name | memory.size | Export in s | Archive in 1 | Archive in 1, run 2"
                                + " | Harbour, average in fps | Harbour, 1 % low in fps | CHECK");
        assertThat(layout.suite()).isEqualTo("Minis 2026");
        assertThat(layout.deviceClass()).isEqualTo("mini");
        assertThat(layout.lastRow()).isEqualTo(7);
        assertThat(layout.skipped()).isEmpty();

        TableReading reading = read(MINIS, "minis-2026.xlsx");
        assertThat(reading.devices()).hasSize(7);
        TableReading.Device first = reading.devices().get(0);
        assertThat(first.maker()).isEqualTo("Ostler");
        assertThat(first.model()).isEqualTo("Cob mini");
        assertThat(first.date()).isEqualTo("2026-03-12");
        assertThat(first.fields()).containsEntry("price", "799 EUR");
        assertThat(first.facts())
                .containsEntry("processor.name", "Corvane 7")
                .containsEntry("memory.size", "17179869184");
        assertThat(score(reading, "Ostler Fell", "Export", 1)).contains(72.0);
        assertThat(score(reading, "Ostler Cob mini", "Archive", 2)).contains(95.8);
        assertThat(score(reading, "Quenby Wren", "Archive", 2)).isEmpty();
        // The footnote keeps two rows of one model apart.
        assertThat(reading.devices().get(3).facts())
                .containsEntry(TableReading.NOTE_FACT, "with power limit raised to 54 W");
        assertThat(reading.devices().get(3).name()).isEqualTo("Tarn Nook 2");
        assertThat(reading.remarks())
                .filteredOn(r -> r.kind() == TableReading.Remark.Kind.STATE)
                .hasSize(4);
        assertThat(reading.remarks()).noneMatch(r -> r.kind() == TableReading.Remark.Kind.UNREAD);
        assertThat(reading.scores().stream().filter(s -> !s.words().isEmpty()).map(TableReading.Score::words))
                .contains("crash on export", "DNF");
        assertThat(reading.scores().stream().filter(s -> s.value().isEmpty()))
                .as("a run whose two numbers are missing failed once")
                .hasSize(3);
        assertThat(reading.checks()).singleElement().satisfies(c -> {
            assertThat(c.of()).isEqualTo("mean");
            assertThat(c.agreeing()).isGreaterThanOrEqualTo(4);
            assertThat(c.rows()).contains(4);
        });
    }

    @Test
    void devicesBesideEachOtherWithFactsAboveTheTests() {
        String across =
                """
                Benchmark | Pellow Drift 13 | Quenby Folio 14 | Ostler Dray
                RAM | 16 GB | 32 GB | 64 GB
                Price (USD) | 999 | 1,299 | 1,849.50
                Weight | 1.21 kg | 1.4 kg | 2,900 g
                Compile, s | 312 | 281.5 | 190
                Lantern (fps, higher is better) | 48 | 57.7 | 144
                Battery (h:mm) | 9:10 | 11:32 | n/a
                """;
        TableLayout layout = LayoutGuess.of(table(across), "laptops.csv", "2026-05-01", KnownNames.NONE);
        assertThat(layout.across()).isTrue();
        assertThat(roles(layout))
                .isEqualTo("MODEL | memory.size | price | weight | Compile in s | Lantern in fps | Battery in h:min");
        TableReading reading = read(across, "laptops.csv");
        assertThat(reading.devices())
                .extracting(TableReading.Device::name)
                .containsExactly("Pellow Drift 13", "Quenby Folio 14", "Ostler Dray");
        assertThat(reading.devices().get(2).fields())
                .containsEntry("price", "1849.50 USD")
                .containsEntry("weight", "2900 g");
        assertThat(reading.devices().get(0).fields()).containsEntry("weight", "1.21 kg");
        assertThat(score(reading, "Quenby Folio 14", "Battery", 1).orElseThrow())
                .isEqualTo(692, within(1e-9));
        assertThat(layout.columns().get(6).direction()).isEqualTo(Direction.MORE_IS_BETTER);
        assertThat(layout.columns().get(4).direction()).isEqualTo(Direction.LESS_IS_BETTER);
        assertThat(layout.columns().get(4).group()).isEqualTo("PROCESSOR");
    }

    @Test
    void twoHeaderRowsWithRunsBelowTheirTest() {
        String two =
                """
                Phones, spring 2026
                | | Weir hash (ops/s) | | | Species list | |
                Maker | Model | 1 | 2 | 3 | run 1 | run 2 | Notes
                Heron | Wader | 120 | 121 | 119 | 58 | 59 | loud
                Heron | Wader Pro | 150 | 149 | 151 | 70 | 71 |
                """;
        TableLayout layout = LayoutGuess.of(table(two), "book.ods", "2026-05-01", KnownNames.NONE);
        assertThat(roles(layout))
                .isEqualTo(
                        "MAKER | MODEL | Weir hash in ops/s | Weir hash in ops/s, run 2 | Weir hash in ops/s, run 3 | Species list in 1 | Species list in 1, run 2 | NOTE");
        assertThat(layout.deviceClass()).isEqualTo("phone");
        TableReading reading = read(two, "book.ods");
        assertThat(reading.devices().get(1).model()).isEqualTo("Wader Pro");
        assertThat(reading.devices().get(0).note()).isEqualTo("loud");
        assertThat(score(reading, "Wader Pro", "Weir hash", 3)).contains(151.0);
    }

    @Test
    void numberedColumnsAreRunsAndSummaryRowsAreNobody() {
        String runs =
                """
                Laptop;CPU;Map tile crush 1 (MB/s);Map tile crush 2 (MB/s);Surface temp °C;Rank
                Pellow Drift 11;Corvane 4;120.5;121;41.2;2
                Pellow Drift 13;Corvane 6;166,1;165;43;1
                Pellow Drift 13;Corvane 6;167;166.5;43.5;1
                Average;;151.2;150.8;42.6;
                """
                        .replace(';', '|');
        TableReading reading = read(runs, "x.csv");
        assertThat(reading.devices()).hasSize(3);
        assertThat(reading.devices().get(2).again())
                .as("the same again, on the same day")
                .isEqualTo(1);
        assertThat(reading.scores()).hasSize(9);
        assertThat(reading.scores().get(0).test().name()).isEqualTo("Map tile crush");
        assertThat(reading.scores().get(1).test().run()).isEqualTo(2);
        assertThat(reading.scores().get(2).test().group()).isEqualTo("BODY");
    }

    @Test
    void numbersAreReadAsTheWholeTableWritesThem() {
        String german = "Gerät|Preis|Punkte, mehr ist besser\nHeron Ufer|1.299,00 €|12.345\nHeron Watt|899 €|9.876,5";
        TableReading reading = read(german, "tablets.csv");
        assertThat(reading.devices().get(0).fields()).containsEntry("price", "1299.00 EUR");
        assertThat(reading.scores()).extracting(s -> s.value().orElseThrow()).containsExactly(12_345.0, 9_876.5);
    }

    @Test
    void aColumnMayBecomeWhatSomebodySaysAndANameWhoIsMeant() {
        Table table = table("Name|Speed\nCob|10\nCob mini|12");
        TableLayout guess = LayoutGuess.of(table, "a.csv", "2026-05-01", KnownNames.NONE);
        TableLayout said = new TableLayout(
                false,
                0,
                0,
                2,
                List.of(),
                List.of(
                        guess.columns().get(0),
                        new ColumnPlan(1, ColumnRole.TEST, "Copy", "", "s", Direction.LESS_IS_BETTER, 1, "STORAGE")),
                "Mine",
                "2",
                "mini",
                "2026-01-02",
                "EUR",
                true,
                java.util.Map.of("Cob", "Ostler\tCob mini"));
        TableReading reading = TableReading.of(table, said, KnownNames.NONE);
        assertThat(reading.devices().get(0).maker()).isEqualTo("Ostler");
        assertThat(reading.devices().get(0).date()).isEqualTo("2026-01-02");
        assertThat(reading.scores().get(1).test().unit()).isEqualTo("s");
    }

    @Test
    void whatCannotBeReadIsSaidCellByCell() {
        TableReading reading =
                read("Device|Export (s)|Tested\nOstler Cob|5 MB/s|31.02.2026\nOstler Fell|0|2026-04-01", "minis.csv");
        assertThat(reading.remarks()).hasSize(3);
        assertThat(reading.remarks()).allMatch(r -> r.kind() == TableReading.Remark.Kind.UNREAD);
        assertThat(reading.scores()).isEmpty();
        assertThat(reading.devices().get(0).date()).as("the day of the table").isEqualTo("2026-05-01");
    }

    @Test
    void oddTablesAreReadAsFarAsTheyGo() {
        assertThat(read("", "a.csv").devices()).isEmpty();
        assertThat(read("only words", "a.csv").scores()).isEmpty();
        assertThat(read("a|b\n\n\n", "a.csv").scores()).isEmpty();
        assertThat(read("1|2\n3|4", "a.csv").scores().size()).isLessThan(5);
    }
}
