package yarrowmark.server.ledger.exchange;

import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import yarrowmark.core.entry.TestLines;
import yarrowmark.core.measure.Direction;
import yarrowmark.core.measure.Kind;
import yarrowmark.core.measure.Scale;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.catalog.TestGroup;
import yarrowmark.server.catalog.TestRow;
import yarrowmark.server.ledger.exchange.ImportCells.Refused;
import yarrowmark.server.ledger.exchange.ImportRow.Measure;
import yarrowmark.server.ledger.record.NewReading;
import yarrowmark.server.ledger.record.SeriesReadings;
import yarrowmark.server.platform.Problem;

/** What each row of a file measures: a metric of the catalogue, or one that is to be made. */
final class ImportMeasures {
    private ImportMeasures() {}

    /** What the points of a curve or of frame times come to, the number that stands for them first. */
    static List<NewReading> series(CsvFile.Row row, @Nullable TestRow test, String points) throws Refused {
        if (!row.cell("value").isEmpty()) {
            throw new Refused(
                    ImportReading.POINTS,
                    points,
                    "A row has a value or points. The numbers of points are found when they are read.");
        }
        if (test == null || test.metrics().stream().noneMatch(m -> m.kind().isSeries())) {
            throw new Refused(
                    ImportReading.POINTS,
                    points,
                    "Only a test of the catalogue that gives a curve or frame times takes points. Make the test first.");
        }
        try {
            String whole = whole(test).key();
            return SeriesReadings.of(test, points, false).stream()
                    .sorted(Comparator.comparing(r -> !r.metric().equals(whole)))
                    .toList();
        } catch (Problem e) {
            throw new Refused(ImportReading.POINTS, points, Problem.words(e));
        }
    }

    static MetricRow whole(TestRow test) {
        return test.metrics().stream()
                .filter(m -> m.kind().isSeries())
                .findFirst()
                .orElseThrow();
    }

    static Measure knownMeasure(CsvFile.Row row, TestRow test, boolean withoutValue) throws Refused {
        String name = row.cell("metric");
        MetricRow metric = test.metrics().get(0);
        if (!withoutValue && test.metrics().size() > 1) {
            metric = test.metrics().stream()
                    .filter(m -> m.name().equalsIgnoreCase(name))
                    .findFirst()
                    .orElseThrow(() -> new Refused(
                            "metric",
                            name,
                            "This test gives several numbers: "
                                    + String.join(
                                            "; ",
                                            test.metrics().stream()
                                                    .map(MetricRow::name)
                                                    .toList()) + "."));
        }
        Optional<Direction> told = ImportCells.direction(row);
        if (!withoutValue
                && (!row.cell("measure unit").isEmpty() && !metric.unit().equals(row.cell("measure unit"))
                        || told.isPresent() && told.get() != metric.direction())) {
            throw new Refused(
                    "measure unit",
                    row.cell("measure unit"),
                    "This test is measured in another unit, or the other way round, than here.");
        }
        return measure(metric);
    }

    static Measure measure(MetricRow metric) {
        return new Measure(
                metric.name(),
                metric.unit(),
                metric.direction(),
                metric.scale(),
                metric.kind(),
                metric.choices(),
                metric.group(),
                metric.main());
    }

    /** @param metrics of the same new test, from the rows before */
    static Measure newMeasure(CsvFile.Row row, Map<String, ImportRow> metrics, boolean withoutValue) throws Refused {
        String name = row.cell("metric").isEmpty() ? row.cell("test") : row.cell("metric");
        ImportRow before = metrics.get(name.toLowerCase(Locale.ROOT));
        String unit = !row.cell("measure unit").isEmpty()
                ? row.cell("measure unit")
                : before != null ? before.measure().unit() : "1";
        Direction direction = ImportCells.direction(row)
                .orElse(before != null ? before.measure().direction() : null);
        if (direction == null) {
            throw new Refused(
                    "direction", row.cell("direction"), "A new test needs to say whether more or less is better.");
        }
        if (!withoutValue
                && before != null
                && before.value() != null
                && (!before.measure().unit().equals(unit) || before.measure().direction() != direction)) {
            throw new Refused(
                    "measure unit", unit, "This test is measured in another unit, or the other way round, than here.");
        }
        if (before != null && before.value() != null) {
            return before.measure();
        }
        Kind kind = ImportCells.one(Kind.values(), row, "kind", TestLines.kind(unit));
        TestGroup group = ImportCells.one(TestGroup.values(), row, "group", TestGroup.EVERYDAY);
        Scale scale = ImportCells.one(
                Scale.values(),
                row,
                "scale",
                kind == Kind.CHECK || kind == Kind.CHOICE ? Scale.DIFFERENCE : TestLines.scale(unit));
        List<String> choices = row.cell("choices").isEmpty()
                ? List.of()
                : Arrays.stream(row.cell("choices").split("<"))
                        .map(String::strip)
                        .toList();
        // The points of a series are not in a file, only its numbers.
        return new Measure(
                name,
                unit,
                direction,
                scale,
                kind.isSeries() ? TestLines.kind(unit) : kind,
                choices,
                group,
                !row.cell(LedgerCsv.COMPUTED).equalsIgnoreCase("yes")
                        && (metrics.isEmpty()
                                || metrics.keySet().iterator().next().equals(name.toLowerCase(Locale.ROOT))));
    }
}
