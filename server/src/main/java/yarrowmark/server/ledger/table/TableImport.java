package yarrowmark.server.ledger.table;

import java.math.BigDecimal;
import java.time.Duration;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.core.measure.Direction;
import yarrowmark.core.table.ColumnPlan;
import yarrowmark.core.table.ColumnRole;
import yarrowmark.core.table.KnownNames;
import yarrowmark.core.table.LayoutGuess;
import yarrowmark.core.table.Table;
import yarrowmark.core.table.TableLayout;
import yarrowmark.core.table.TableReading;
import yarrowmark.core.table.TableReading.Device;
import yarrowmark.core.table.TableReading.Score;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.ledger.exchange.CsvFile;
import yarrowmark.server.ledger.exchange.ImportProgress;
import yarrowmark.server.ledger.exchange.LedgerImport;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.shelf.ModelPage;
import yarrowmark.server.shelf.Shelf;
import yarrowmark.server.shelf.ShelfPages;
import yarrowmark.server.shelf.model.DeviceClass;

/** Reads a table by a layout, says what would be made of it, and makes rows of the ledger of it, all or nothing. */
@Service
class TableImport {
    private static final int MOST_ROWS_SHOWN = 300;
    private static final int MOST_REMARKS = 2_000;
    private static final int MOST_COLUMNS_SAID = TableFile.MOST_COLUMNS;
    private static final int NOON = 12;
    private static final List<String> BEFORE_FACTS = List.of(
            "maker",
            "model",
            "class",
            "unit",
            "suite",
            "version",
            "test",
            "metric",
            "measure unit",
            "direction",
            "group",
            "session",
            "started",
            "run",
            "state",
            "reason",
            "note",
            "value",
            "resolution");

    private final Shelf shelf;
    private final ShelfPages pages;
    private final Catalog catalog;
    private final LedgerImport imports;

    TableImport(Shelf shelf, ShelfPages pages, Catalog catalog, LedgerImport imports) {
        this.shelf = shelf;
        this.pages = pages;
        this.catalog = catalog;
        this.imports = imports;
    }

    @Transactional(readOnly = true)
    public TableAnswer answer(String id, TableUploads.Upload upload, int sheet, @Nullable TableLayout said) {
        Table table = table(upload, sheet);
        KnownNames known = names();
        TableLayout layout = layout(upload, table, said, known);
        TableReading reading = TableReading.of(table, layout, known);
        Table turned = layout.turned(table);
        List<String> toSay = toSay(layout, reading);
        List<TableReading.Remark> unread = reading.remarks().stream()
                .filter(r -> r.kind() == TableReading.Remark.Kind.UNREAD)
                .toList();
        int values = (int)
                reading.scores().stream().filter(s -> s.value().isPresent()).count();
        return new TableAnswer(
                id,
                upload.name(),
                upload.sheets().stream()
                        .map(t -> new TableAnswer.SheetPart(t.name(), t.height(), t.width()))
                        .toList(),
                sheet,
                layout,
                turned.rows().stream()
                        .limit(MOST_ROWS_SHOWN)
                        .map(r -> r.stream().map(c -> c.text()).toList())
                        .toList(),
                turned.height(),
                reading.devices().size(),
                (int) layout.columns().stream()
                        .filter(p -> p.role() == ColumnRole.TEST)
                        .map(ColumnPlan::name)
                        .distinct()
                        .count(),
                values,
                reading.scores().size() - values,
                unread.size(),
                reading.remarks().stream().limit(MOST_REMARKS).toList(),
                nameQuestions(reading),
                twice(reading),
                reading.checks(),
                toSay,
                toSay.isEmpty() && !reading.scores().isEmpty()
                        ? imports.previewRows(rows(table, layout, reading), new ImportProgress())
                        : null);
    }

    /** All of it or nothing; fields of models are filled where they are empty, and left as they are where they are not. */
    @Transactional
    public LedgerImport.ImportOutcome store(
            TableUploads.Upload upload, int sheet, TableLayout said, String person, ImportProgress progress) {
        Table table = table(upload, sheet);
        TableLayout layout = checked(said, table);
        TableReading reading = TableReading.of(table, layout, names());
        List<String> toSay = toSay(layout, reading);
        if (!toSay.isEmpty()) {
            throw Problem.invalid("table-unclear", toSay.get(0));
        }
        LedgerImport.ImportOutcome outcome = imports.storeRows(rows(table, layout, reading), true, person, progress);
        Set<String> done = new LinkedHashSet<>();
        for (Device d : reading.devices()) {
            if (!d.fields().isEmpty() && done.add(d.maker() + "\t" + d.model())) {
                shelf.findModel(d.maker(), d.model()).ifPresent(model -> fill(model, d, person));
            }
        }
        return outcome;
    }

    private void fill(long model, Device device, String person) {
        Map<String, ModelPage.FieldPart> there = new HashMap<>();
        pages.model(model).fields().forEach(f -> there.put(f.name(), f));
        device.fields().forEach((name, typed) -> {
            ModelPage.FieldPart field = there.get(name);
            if (field != null && field.value() == null) {
                try {
                    shelf.changeModel(model, name, null, typed, person);
                } catch (Problem e) {
                    throw Problem.invalid(
                            e.code(),
                            "Row " + (device.row() + 1) + ", " + field.label().toLowerCase(Locale.ROOT) + ": "
                                    + e.getMessage() + " Nothing was stored.");
                }
            }
        });
    }

    private static TableLayout layout(
            TableUploads.Upload upload, Table table, @Nullable TableLayout said, KnownNames known) {
        String name = nameOf(upload, table);
        if (said == null) {
            return LayoutGuess.of(table, name, upload.written(), known);
        }
        return said.columns().isEmpty()
                ? LayoutGuess.of(table, name, upload.written(), known, said.across())
                : checked(said, table);
    }

    private KnownNames names() {
        return new TableNames(pages.allModels(), catalog.tests());
    }

    private static Table table(TableUploads.Upload upload, int sheet) {
        if (sheet < 0 || sheet >= upload.sheets().size()) {
            throw Problem.notFound("sheet", sheet + 1);
        }
        return upload.sheets().get(sheet);
    }

    /** A workbook's sheets are often called Sheet1. */
    private static String nameOf(TableUploads.Upload upload, Table table) {
        return table.name().isEmpty()
                        || table.name().matches("(?i)(?:sheet|tabelle|feuil|hoja|table) ?\\d+")
                        || upload.sheets().size() == 1
                ? upload.name()
                : table.name();
    }

    /** What came from outside: columns that the table has, each once, and rows in it. */
    private static TableLayout checked(TableLayout layout, Table table) {
        Table turned = layout.turned(table);
        boolean isWithin = layout.headerFrom() >= 0
                && layout.headerFrom() <= layout.headerTo()
                && layout.lastRow() < Math.max(1, turned.height())
                && layout.columns().size() <= MOST_COLUMNS_SAID
                && layout.columns().stream()
                                .mapToInt(ColumnPlan::column)
                                .distinct()
                                .count()
                        == layout.columns().size()
                && layout.columns().stream()
                        .allMatch(p -> p.column() >= 0
                                && p.column() < Math.max(1, turned.width())
                                && p.run() >= 1
                                && p.run() <= 1000);
        if (!isWithin) {
            throw Problem.invalid(
                    "layout-outside", "The layout speaks of rows or columns that this table does not have.");
        }
        return layout;
    }

    private static List<String> toSay(TableLayout layout, TableReading reading) {
        List<String> toSay = new ArrayList<>();
        if (layout.columns().stream().noneMatch(p -> p.role() == ColumnRole.MODEL)) {
            toSay.add("Say which column has the model.");
        }
        if (layout.columns().stream().noneMatch(p -> p.role() == ColumnRole.TEST)) {
            toSay.add("Say which columns have scores.");
        }
        Optional<Device> classless = reading.devices().stream()
                .filter(d -> !d.isKnown())
                .filter(d -> Arrays.stream(DeviceClass.values())
                        .noneMatch(c -> c.name().equalsIgnoreCase(d.deviceClass())))
                .findFirst();
        classless.ifPresent(d -> toSay.add(
                d.deviceClass().isEmpty()
                        ? "Say what class the new models are."
                        : "\"" + d.deviceClass()
                                + "\" is no class of device. Say what the models without a column for it are."));
        if (layout.suite().isBlank() || layout.version().isBlank()) {
            toSay.add("Name the suite of these tests, and its version.");
        }
        return toSay;
    }

    private static List<TableAnswer.NameQuestion> nameQuestions(TableReading reading) {
        return reading.devices().stream()
                .flatMap(d ->
                        d.nearest().map(n -> new TableAnswer.NameQuestion(d.name(), n.maker(), n.model())).stream())
                .distinct()
                .toList();
    }

    private static List<TableAnswer.TwiceQuestion> twice(TableReading reading) {
        Map<String, Integer> times = new LinkedHashMap<>();
        reading.devices().stream()
                .filter(d -> d.again() > 0)
                .forEach(d -> times.merge(d.name(), d.again() + 1, Math::max));
        return times.entrySet().stream()
                .map(e -> new TableAnswer.TwiceQuestion(e.getKey(), e.getValue()))
                .toList();
    }

    /** As the ledger writes itself: a row for each value or run without one. */
    private static CsvFile rows(Table file, TableLayout layout, TableReading reading) {
        Map<Integer, Device> devices = new HashMap<>();
        Set<String> facts = new LinkedHashSet<>();
        reading.devices().forEach(d -> {
            devices.put(d.row(), d);
            facts.addAll(d.facts().keySet());
        });
        List<String> columns = new ArrayList<>(BEFORE_FACTS);
        facts.forEach(f -> columns.add("fact:" + f));
        Set<Integer> noted = new LinkedHashSet<>();
        List<String[]> cells = new ArrayList<>();
        List<Long> lines = new ArrayList<>();
        for (Score s : reading.scores()) {
            Device d = devices.get(s.row());
            if (d == null) {
                continue;
            }
            ColumnPlan test = s.test();
            boolean isFirst = noted.add(s.row());
            String note =
                    s.value().isPresent() ? isFirst ? d.note() : "" : s.words().isEmpty() ? "" : s.words();
            List<String> row = new ArrayList<>(List.of(
                    d.maker(),
                    d.model(),
                    d.deviceClass(),
                    d.unit(),
                    layout.suite().strip(),
                    layout.version().strip(),
                    test.name(),
                    test.metric(),
                    test.unit().equals("h:min") ? "min" : test.unit(),
                    test.direction() == Direction.LESS_IS_BETTER ? "less" : "more",
                    test.group().toLowerCase(Locale.ROOT),
                    session(d, file),
                    d.date()
                            .atTime(NOON, 0)
                            .toInstant(ZoneOffset.UTC)
                            .plus(Duration.ofHours(d.again()))
                            .toString(),
                    Integer.toString(test.run()),
                    s.value().isPresent() ? "ok" : s.ran() ? "failed" : "could not run",
                    s.value().isPresent() ? "" : "other",
                    note.length() > 500 ? note.substring(0, 500) : note,
                    s.value()
                            .map(v -> new BigDecimal(v)
                                    .round(new java.math.MathContext(15))
                                    .stripTrailingZeros()
                                    .toPlainString())
                            .orElse(""),
                    s.value().isPresent() ? Double.toString(s.resolution()) : ""));
            facts.forEach(f -> row.add(d.facts().getOrDefault(f, "")));
            cells.add(row.toArray(String[]::new));
            lines.add(s.row() + 1L);
        }
        return CsvFile.of(columns, cells, lines);
    }

    private static String session(Device d, Table file) {
        String name = d.session().isEmpty() ? file.name().isEmpty() ? "Imported" : file.name() : d.session();
        String shown = d.again() == 0 ? name : name + ", again " + (d.again() + 1);
        return shown.length() > 120 ? shown.substring(0, 120) : shown;
    }
}
