package yarrowmark.core.table;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import yarrowmark.core.measure.Direction;

/** What a table most probably is. Nobody's word is final: whoever looks at it changes what is wrong. */
public final class LayoutGuess {
    private static final Pattern DATE_LIKE = Pattern.compile(
            "\\d{4}-\\d{1,2}-\\d{1,2}(?:[T ].*)?|\\d{1,2}[./-]\\d{1,2}[./-](?:\\d{4}|\\d{2})|\\d{1,2}\\.? (?i:jan|feb|mar|apr|may|jun|jul|aug|sep|oct|nov|dec)[a-z]* \\d{4}");
    private static final Pattern PRICE_LIKE =
            Pattern.compile("(?i)(?:[€$£]|eur|usd|gbp|chf)\\s?[\\d.,\\s]+|[\\d.,\\s]+\\s?(?:[€$£]|eur|usd|gbp|chf)");

    private static final Pattern CLOCK = Pattern.compile("\\d{1,3}:\\d{2}(?::\\d{2})?(?:[.,]\\d+)?");
    private static final Pattern SUMMARY_ROW = Pattern.compile(
            "(?i)(?:average|avg|mean|median|total|sum|min|max|minimum|maximum|geomean|geometric mean|ø|durchschnitt|mittelwert|moyenne|promedio)\\b.*");
    private static final List<String> CLASSES = List.of("laptop", "phone", "tablet", "desktop", "mini", "board");
    private static final Map<String, String> CLASS_WORDS =
            Map.of("notebook", "laptop", "smartphone", "phone", "handset", "phone", "tower", "desktop", "nuc", "mini");

    private final Table table;
    private final KnownNames known;
    private final List<ColumnPlan> plans = new ArrayList<>();
    private final Set<ColumnRole> had = new HashSet<>();
    private final Set<String> used = new HashSet<>();
    private final TableHead head;
    private int lastRow;

    private LayoutGuess(Table table, KnownNames known) {
        this.table = table;
        this.known = known;
        this.head = new TableHead(table);
    }

    /**
     * @param name what the sheet or its file is called: words in it may tell the class and name the suite
     * @param date on which the file was written, as 2026-03-12: the day of scores that have none
     */
    public static TableLayout of(Table table, String name, String date, KnownNames known) {
        return of(table, name, date, known, Orientation.isAcross(table, known));
    }

    /** The same where somebody says which way devices stand. */
    public static TableLayout of(Table table, String name, String date, KnownNames known, boolean across) {
        return new LayoutGuess(across ? table.transposed() : table, known).layout(across, name, date);
    }

    private TableLayout layout(boolean across, String name, String date) {
        columns();
        lastRow = table.height() - 1;
        int model = plans.stream()
                .filter(p -> p.role() == ColumnRole.MODEL)
                .mapToInt(ColumnPlan::column)
                .findFirst()
                .orElse(0);
        List<Integer> skipped = new ArrayList<>();
        for (int row = head.to() + 1; row < table.height(); row++) {
            if (!isDevice(row, model)) {
                skipped.add(row);
            }
        }
        while (lastRow > head.to() && skipped.contains(lastRow)) {
            skipped.remove(Integer.valueOf(lastRow));
            lastRow--;
        }
        List<KnownNames.KnownTest> tests = plans.stream()
                .filter(p -> p.role() == ColumnRole.TEST)
                .map(p -> known.test(p.name()))
                .flatMap(Optional::stream)
                .toList();
        long columns = plans.stream()
                .filter(p -> p.role() == ColumnRole.TEST)
                .map(ColumnPlan::name)
                .distinct()
                .count();
        boolean isKnown = columns > 0
                && tests.stream().map(KnownNames.KnownTest::name).distinct().count() == columns
                && tests.stream()
                                .map(t -> t.suite() + "\t" + t.version())
                                .distinct()
                                .count()
                        == 1;
        return new TableLayout(
                across,
                head.from(),
                head.to(),
                lastRow,
                skipped,
                plans,
                isKnown ? tests.get(0).suite() : suiteName(name),
                isKnown ? tests.get(0).version() : "1",
                deviceClass(name),
                date,
                currency(),
                isDayFirst(),
                Map.of());
    }

    private void columns() {
        int width = table.width();
        List<HeaderWords> words = new ArrayList<>();
        Map<String, Integer> sisters = new HashMap<>();
        for (int column = 0; column < width; column++) {
            HeaderWords of = HeaderWords.of(head.heading(column));
            words.add(of);
            of.asNumbered().ifPresent(n -> sisters.merge(n.name(), 1, Integer::sum));
        }
        for (int column = 0; column < width; column++) {
            HeaderWords of = words.get(column);
            Optional<HeaderWords> numbered = of.asNumbered();
            if (numbered.isPresent()
                    && (sisters.getOrDefault(numbered.get().name(), 0) > 1
                            || plans.stream().anyMatch(p -> p.name()
                                    .equals(numbered.get().name())))) {
                of = numbered.get();
            }
            ColumnPlan plan = plan(column, of);
            plans.add(plan);
            had.add(plan.role());
            if (!plan.name().isEmpty() && plan.role() != ColumnRole.TEST) {
                used.add(plan.role() + plan.name());
            }
        }
        if (!had.contains(ColumnRole.MODEL)) {
            // Whatever has words first: somebody has to be meant.
            plans.stream()
                    .filter(p -> p.role() != ColumnRole.TEST
                            && !head.below(p.column()).isEmpty())
                    .filter(p -> head.below(p.column()).stream().noneMatch(TableHead::isNumber))
                    .findFirst()
                    .ifPresent(p -> plans.set(p.column(), ColumnPlan.of(p.column(), ColumnRole.MODEL)));
        }
    }

    private ColumnPlan plan(int column, HeaderWords of) {
        List<TableCell> cells = head.below(column);
        if (cells.isEmpty()) {
            return ColumnPlan.of(column, ColumnRole.IGNORED);
        }
        long numbers = cells.stream().filter(TableHead::isNumber).count();
        long words = cells.stream()
                .filter(c -> !TableHead.isNumber(c) && !TableReader.isState(c.text()))
                .count();
        boolean isNumeric = numbers > 0 && numbers >= words;
        Optional<ColumnRole> role =
                of.role().filter(r -> r == ColumnRole.CHECK || r == ColumnRole.IGNORED || !had.contains(r));
        if (role.isPresent()
                && of.unit().isEmpty()
                && !(role.get() == ColumnRole.MODEL && isNumeric && had.contains(ColumnRole.MAKER))) {
            boolean isCheck = role.get() == ColumnRole.CHECK && !isFollowedByMetric(column);
            if (role.get() != ColumnRole.CHECK || isCheck) {
                return ColumnPlan.of(column, role.get());
            }
        }
        Optional<String> field = of.field().filter(f -> !used.contains(ColumnRole.MODEL_FIELD + f));
        if (field.isPresent()) {
            return ColumnPlan.named(column, ColumnRole.MODEL_FIELD, field.get(), of.unit());
        }
        Optional<String> fact = of.fact().filter(f -> !used.contains(ColumnRole.FACT + f));
        if (fact.isPresent()) {
            return ColumnPlan.named(column, ColumnRole.FACT, fact.get(), of.unit());
        }
        if (!had.contains(ColumnRole.DATE)
                && share(
                                cells,
                                c -> c.form() == TableCell.Form.DATE
                                        || DATE_LIKE.matcher(c.text()).matches())
                        > 0.6) {
            return ColumnPlan.of(column, ColumnRole.DATE);
        }
        if (!used.contains(ColumnRole.MODEL_FIELD + "price")
                && share(cells, c -> PRICE_LIKE.matcher(c.text()).matches()) > 0.6) {
            return ColumnPlan.named(column, ColumnRole.MODEL_FIELD, "price", "");
        }
        if (isNumeric) {
            return test(column, of, cells);
        }
        return ColumnPlan.of(
                column, had.contains(ColumnRole.MODEL) || column > 0 ? ColumnRole.IGNORED : ColumnRole.MODEL);
    }

    private boolean isFollowedByMetric(int column) {
        return column + 1 < table.width()
                && HeaderWords.of(table.text(head.to(), column + 1)).metric().contains("low");
    }

    private static double share(List<TableCell> cells, java.util.function.Predicate<TableCell> is) {
        return cells.stream().filter(is).count() / (double) cells.size();
    }

    private ColumnPlan test(int column, HeaderWords of, List<TableCell> cells) {
        ColumnPlan before = plans.stream()
                .filter(p -> p.role() == ColumnRole.TEST && p.column() == column - 1)
                .findFirst()
                .orElse(null);
        if (of.name().isEmpty() && before != null) {
            // A merged cell, "run 2" alone, or "1 %" behind "avg".
            return of.metric().isEmpty()
                    ? at(column, before).asRun(of.run() > 0 ? of.run() : before.run() + 1)
                    : further(column, before, of);
        }
        String name = of.name().isEmpty() ? letter(column) : of.name();
        Optional<ColumnPlan> same = plans.stream()
                .filter(p -> p.role() == ColumnRole.TEST && p.name().equalsIgnoreCase(name))
                .reduce((a, b) -> b);
        if (same.isPresent()
                && (of.unit().isEmpty() || of.unit().equals(same.get().unit()))) {
            ColumnPlan first = same.get();
            return of.metric().equals(first.metric()) || of.metric().isEmpty()
                    ? at(column, first).asRun(of.run() > 0 ? of.run() : first.run() + 1)
                    : further(column, first, of);
        }
        Optional<KnownNames.KnownTest> there = known.test(name);
        String unit = !of.unit().isEmpty()
                ? of.unit()
                : there.map(KnownNames.KnownTest::unit).orElseGet(() -> unitOf(column, of, cells));
        Direction direction = there.map(KnownNames.KnownTest::direction)
                .orElse(of.direction() != null ? of.direction() : HeaderWords.usual(name, unit));
        return new ColumnPlan(
                column,
                ColumnRole.TEST,
                there.map(KnownNames.KnownTest::name).orElse(name),
                of.metric(),
                unit,
                direction,
                Math.max(1, of.run()),
                there.map(KnownNames.KnownTest::group).orElseGet(() -> TestGroups.of(name, unit)));
    }

    private static ColumnPlan at(int column, ColumnPlan p) {
        return new ColumnPlan(column, p.role(), p.name(), p.metric(), p.unit(), p.direction(), p.run(), p.group());
    }

    private static ColumnPlan further(int column, ColumnPlan p, HeaderWords of) {
        return new ColumnPlan(
                column,
                ColumnRole.TEST,
                p.name(),
                of.metric(),
                of.unit().isEmpty() ? p.unit() : of.unit(),
                of.direction() == null ? p.direction() : of.direction(),
                p.run(),
                p.group());
    }

    private String unitOf(int column, HeaderWords of, List<TableCell> cells) {
        String own = unitOf(cells);
        // Nothing else than frames has a low of one per cent beside its average.
        return own.equals("1") && of.metric().equals("average") && isFollowedByMetric(column) ? "fps" : own;
    }

    /** What stands behind the numbers of a column, where most that have something have the same. */
    private static String unitOf(List<TableCell> cells) {
        if (share(cells, c -> CLOCK.matcher(c.text()).matches()) > 0) {
            return "s";
        }
        Map<String, Integer> seen = new HashMap<>();
        cells.forEach(c -> {
            String unit = HeaderWords.unitOf(c.text().replaceFirst("^[-−+\\d\\s.,'’]+", ""));
            if (!unit.isEmpty() && Character.isDigit(c.text().charAt(0))) {
                seen.merge(unit, 1, Integer::sum);
            }
        });
        return seen.entrySet().stream()
                .max(Map.Entry.comparingByValue())
                .map(Map.Entry::getKey)
                .orElse("1");
    }

    /** Column letters as spreadsheets count them. */
    static String letter(int column) {
        return (column < 26 ? "" : letter(column / 26 - 1)) + (char) ('A' + column % 26);
    }

    private boolean isDevice(int row, int model) {
        String name = table.text(row, model);
        boolean isAlone = table.filled(row) <= 1;
        return !name.isEmpty() && !isAlone && !SUMMARY_ROW.matcher(name).matches() && !isHeaderAgain(row);
    }

    private boolean isHeaderAgain(int row) {
        return IntStream.range(0, table.width())
                .allMatch(c -> table.text(row, c).equals(table.text(head.to(), c)));
    }

    private String currency() {
        for (ColumnPlan p : plans) {
            if (p.role() == ColumnRole.MODEL_FIELD && p.name().equals("price")) {
                String all = p.unit()
                        + head.below(p.column()).stream().map(TableCell::text).toList();
                return all.contains("$") || all.contains("USD")
                        ? "USD"
                        : all.contains("£") || all.contains("GBP") ? "GBP" : all.contains("CHF") ? "CHF" : "EUR";
            }
        }
        return "EUR";
    }

    /** Of dates such as 03/04/2026: whether some cell shows a first number that no month has, or a point parts them. */
    private boolean isDayFirst() {
        return plans.stream()
                .filter(p -> p.role() == ColumnRole.DATE)
                .flatMap(p -> head.below(p.column()).stream())
                .noneMatch(c -> c.text().matches("\\d{1,2}/(?:1[3-9]|2\\d|3[01])/.*"));
    }

    private @Nullable String deviceClass(String name) {
        String words =
                (name + " " + table.name() + " " + head.heading(0) + " " + head.titles()).toLowerCase(Locale.ROOT);
        for (Map.Entry<String, String> e : CLASS_WORDS.entrySet()) {
            if (words.contains(e.getKey())) {
                return e.getValue();
            }
        }
        return CLASSES.stream()
                .filter(c -> Pattern.compile("\\b" + c + "(?:s|es)?\\b")
                        .matcher(words.replace('_', ' ').replace('-', ' '))
                        .find())
                .findFirst()
                .orElse(null);
    }

    private static String suiteName(String name) {
        String plain = name.replaceFirst("\\.[A-Za-z]{2,4}$", "")
                .replaceAll("[_-]+", " ")
                .strip();
        String shown = plain.isEmpty() ? "Imported tests" : plain;
        return shown.substring(0, 1).toUpperCase(Locale.ROOT) + shown.substring(1, Math.min(shown.length(), 80));
    }
}
