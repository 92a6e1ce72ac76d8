package yarrowmark.core.table;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import org.junit.jupiter.api.Test;

/** More made-up sheets, each kept in another way: what they are is found without a touch. */
class KeptSheetsTest {
    private static TableLayout layout(String text, String name) {
        return LayoutGuess.of(TableReadingTest.table(text), name, "2026-05-01", KnownNames.NONE);
    }

    private static TableReading read(String text, String name) {
        Table table = TableReadingTest.table(text);
        Table wide = LongTable.widened(table).orElse(table);
        return TableReading.of(wide, LayoutGuess.of(wide, name, "2026-05-01", KnownNames.NONE), KnownNames.NONE);
    }

    private static List<Double> values(TableReading reading, int device) {
        int row = reading.devices().get(device).row();
        return reading.scores().stream()
                .filter(s -> s.row() == row)
                .flatMap(s -> s.value().stream())
                .toList();
    }

    @Test
    void aScoreARow() {
        TableReading reading = read(
                """
                Device | Test | Unit | Run | Value | Date
                Ostler Cob | Export | s | 1 | 58 | 2026-03-12
                Ostler Cob | Export | s | 2 | 59 | 2026-03-12
                Ostler Cob | Harbour | fps | 1 | 52.6 | 2026-03-12
                Ostler Fell | Harbour | fps | 1 | DNF | 2026-03-14
                Ostler Fell | Export | s | 1 | 72 | 2026-03-14
                """,
                "minis.csv");
        assertThat(reading.devices()).hasSize(2);
        assertThat(values(reading, 0)).containsExactly(58.0, 59.0, 52.6);
        assertThat(values(reading, 1)).containsExactly(72.0);
        assertThat(reading.scores())
                .anyMatch(s -> s.words().equals("DNF") && s.test().unit().equals("fps"));
        assertThat(reading.devices().get(1).date()).isEqualTo("2026-03-14");
    }

    @Test
    void aTableThatNamesTestsOverItsColumnsIsNotOfThatShape() {
        assertThat(LongTable.widened(TableReadingTest.table("Device|Export|Score\nOstler Cob|1|2")))
                .isEmpty();
    }

    @Test
    void unitsInARowOfTheirOwn() {
        TableLayout layout = layout(
                """
                Laptop | CPU | Compile | Copy | Surface
                 | | s | GB/s | °C
                Pellow Drift 11 | Corvane 4 | 312 | 21.4 | 41.2
                Pellow Drift 13 | Corvane 6 | 281 | 26.1 | 43.0
                """,
                "laptops.ods");
        assertThat(layout.columns()).extracting(ColumnPlan::unit).containsExactly("", "", "s", "GB/s", "°C");
        assertThat(layout.columns())
                .extracting(ColumnPlan::role)
                .containsExactly(ColumnRole.MODEL, ColumnRole.FACT, ColumnRole.TEST, ColumnRole.TEST, ColumnRole.TEST);
    }

    @Test
    void unitsBehindEachNumberAndTimesInTwoWays() {
        TableReading reading = read(
                """
                Phone | Export | Download | Battery life
                Heron Wader | 12 s | 412 Mbit/s | 11 h 20
                Heron Wader Pro | 0:14 | 388 Mbit/s | 12 h 05
                """,
                "phones.csv");
        assertThat(values(reading, 0).get(0)).isEqualTo(12);
        assertThat(values(reading, 1).get(0)).isEqualTo(14);
        assertThat(values(reading, 1).get(1)).isEqualTo(388);
        assertThat(reading.scores().get(1).test().unit()).isEqualTo("Mbit/s");
    }

    @Test
    void poundsInchesOfAnotherLandAndMonthsFirst() {
        TableReading reading = read(
                """
                Laptop | Tested on | Price | Weight (lb) | Render (s, lower is better)
                Quenby Folio 14 | 3/24/2026 | $1,299.00 | 2.98 | 201
                Quenby Folio 16 | 4/2/2026 | $1,899 | 4.1 | 166
                """,
                "laptops.csv");
        assertThat(reading.devices().get(0).date()).isEqualTo("2026-03-24");
        assertThat(reading.devices().get(1).date()).isEqualTo("2026-04-02");
        assertThat(reading.devices().get(0).fields())
                .containsEntry("price", "1299.00 USD")
                .containsEntry("weight", "2.98 lb");
    }

    @Test
    void headingsThatComeAgainAndRowsThatOnlyTitleOthers() {
        TableReading reading = read(
                """
                Tablet | Sketch (drawings/s) | Scroll fps
                Last year | |
                Heron Otter | 81.5 | 59
                Tablet | Sketch (drawings/s) | Scroll fps
                Heron Stoat | 94.8 | 118
                Total | 176.3 | 177
                """,
                "tablets.csv");
        assertThat(reading.devices())
                .extracting(TableReading.Device::name)
                .containsExactly("Heron Otter", "Heron Stoat");
    }

    @Test
    void percentagesAndEmptyCellsAndWordsForNotYet() {
        TableReading reading = read(
                """
                Laptop | Gamut % | Hash, ops/s | Notes
                Pellow Drift 11 | 98 % | tbd | glossy
                Pellow Drift 13 | 100 % | 465 |
                Pellow Drift 15 | | not tested | loud fan
                """,
                "laptops.csv");
        assertThat(values(reading, 0)).containsExactly(98.0);
        assertThat(values(reading, 1)).containsExactly(100.0, 465.0);
        assertThat(reading.scores()).as("what is not done yet is no run").hasSize(3);
        assertThat(reading.devices().get(2).note()).isEqualTo("loud fan");
    }

    @Test
    void makerAndModelInTwoCellsAndAClassOfItsOwn() {
        TableReading reading = read(
                """
                Maker;Model;Type;Year;Hash ops/s
                Dunlin;Sanderling;Tablet;2025;212
                Dunlin;Knot;Notebook;2026;480
                """
                        .replace(';', '|'),
                "all.csv");
        assertThat(reading.devices())
                .extracting(TableReading.Device::deviceClass)
                .containsExactly("tablet", "laptop");
        assertThat(reading.devices().get(0).fields()).containsEntry("released", "2025-01-01");
        assertThat(reading.devices().get(1).maker()).isEqualTo("Dunlin");
    }

    @Test
    void formulasThatCameToNothingAreSaid() {
        Table table = new Table(
                "a",
                List.of(
                        List.of(TableCell.of("Laptop"), TableCell.of("RAM"), TableCell.of("Export (s)")),
                        List.of(
                                TableCell.of("Pellow Drift 11"),
                                new TableCell("#REF!", TableCell.Form.ERROR),
                                new TableCell("12.5", TableCell.Form.NUMBER))));
        TableReading reading = TableReading.of(
                table, LayoutGuess.of(table, "laptops", "2026-05-01", KnownNames.NONE), KnownNames.NONE);
        assertThat(reading.remarks()).singleElement().satisfies(r -> assertThat(r.words())
                .contains("#REF!"));
        assertThat(reading.scores()).hasSize(1);
        assertThat(reading.scores().get(0).value().orElseThrow()).isEqualTo(12.5, within(1e-12));
    }

    @Test
    void namesFromRightToLeftAreNames() {
        TableReading reading = read("דגם|Export (s)\nחסידה 5|12\nחסידה 7|11", "laptops.csv");
        assertThat(reading.devices()).extracting(TableReading.Device::name).containsExactly("חסידה 5", "חסידה 7");
        assertThat(reading.scores()).hasSize(2);
    }

    @Test
    void whatNoModelCanHaveIsSaidWhereItStands() {
        TableReading reading = read(
                """
                Laptop | Price | Weight | Year | Height | Export (s)
                Pellow Drift 11 | 0 € | 1 250 g | 1850 | 3 m/s | 12
                Pellow Drift 13 | ask us | 1.2.3 | 2026 | 15 | 13
                Pellow Drift 15 | 1 299 € | 90000000 kg | 2025 | 1.6 cm | 14
                """,
                "laptops.csv");
        assertThat(reading.remarks())
                .extracting(r -> r.row() + " " + r.column())
                .containsExactly("1 1", "1 3", "1 4", "2 1", "2 2", "3 2");
        assertThat(reading.devices().get(0).fields()).containsOnlyKeys("weight");
        assertThat(reading.devices().get(1).fields()).containsEntry("height", "15 mm");
        assertThat(reading.devices().get(2).fields()).containsEntry("price", "1299 EUR");
        assertThat(reading.scores()).hasSize(3);
    }
}
