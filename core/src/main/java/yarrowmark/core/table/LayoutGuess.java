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
    private static final Pattern NUMBER_LIKE = Pattern.compile(
            "[-−+]?[€$£]?\\s?\\d[\\d\\s.,'’]*\\s*(?:[€$£%]|[A-Za-zµ°²/()]{1,8})?|\\d{1,3}:\\d{2}(?::\\d{2})?(?:[.,]\\d+)?");
    private static final Pattern DATE_LIKE = Pattern.compile(
            "\\d{4}-\\d{1,2}-\\d{1,2}(?:[T ].*)?|\\d{1,2}[./-]\\d{1,2}[./-](?:\\d{4}|\\d{2})|\\d{1,2}\\.? (?i:jan|feb|mar|apr|may|jun|jul|aug|sep|oct|nov|dec)[a-z]* \\d{4}");
    private static final Pattern PRICE_LIKE =
            Pattern.compile("(?i)(?:[€$£]|eur|usd|gbp|chf)\\s?[\\d.,\\s]+|[\\d.,\\s]+\\s?(?:[€$£]|eur|usd|gbp|chf)");
    /** What stands over columns of runs is no measured number. */
    private static final Pattern RUN_NUMBER = Pattern.compile("[1-9]");

    private static final Pattern CLOCK = Pattern.compile("\\d{1,3}:\\d{2}(?::\\d{2})?(?:[.,]\\d+)?");
    private static final Pattern SUMMARY_ROW = Pattern.compile(
            "(?i)(?:average|avg|mean|median|total|sum|min|max|minimum|maximum|geomean|geometric mean|ø|durchschnitt|mittelwert|moyenne|promedio)\\b.*");
    private static final Pattern FIRST_WORDS_ACROSS =
            Pattern.compile("(?i)tests?|benchmarks?|metric|score|spec|feature|property|workload|messung|kategorie");
    private static final List<String> CLASSES = List.of("laptop", "phone", "tablet", "desktop", "mini", "board");
    private static final Map<String, String> CLASS_WORDS =
            Map.of("notebook", "laptop", "smartphone", "phone", "handset", "phone", "tower", "desktop", "nuc", "mini");
    private static final int HEADER_DEPTH = 12;

    private final Table table;
    private final KnownNames known;
    private final List<ColumnPlan> plans = new ArrayList<>();
    private final Set<ColumnRole> had = new HashSet<>();
    private final Set<String> used = new HashSet<>();
    private int headerFrom;
    private int headerTo;
    private int lastRow;

    private LayoutGuess(Table table, KnownNames known) {
        this.table = table;
        this.known = known;
    }

    /**
     * @param name what the sheet or its file is called: words in it may tell the class and name the suite
     * @param date on which the file was written, as 2026-03-12: the day of scores that have none
     */
    public static TableLayout of(Table table, String name, String date, KnownNames known) {
        return of(table, name, date, known, isAcross(table, known));
    }

    /** The same where somebody says which way devices stand. */
    public static TableLayout of(Table table, String name, String date, KnownNames known, boolean across) {
        return new LayoutGuess(across ? table.transposed() : table, known).layout(across, name, date);
    }

    private TableLayout layout(boolean across, String name, String date) {
        header();
        columns();
        lastRow = table.height() - 1;
        int model = plans.stream()
                .filter(p -> p.role() == ColumnRole.MODEL)
                .mapToInt(ColumnPlan::column)
                .findFirst()
                .orElse(0);
        List<Integer> skipped = new ArrayList<>();
        for (int row = headerTo + 1; row < table.height(); row++) {
            if (!isDevice(row, model)) {
                skipped.add(row);
            }
        }
        while (lastRow > headerTo && skipped.contains(lastRow)) {
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
                headerFrom,
                headerTo,
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

    /** The first rows in which most cells are words, above one in which most are numbers. */
    private void header() {
        int width = table.width();
        int best = -1;
        for (int row = 0; row < Math.min(table.height(), HEADER_DEPTH); row++) {
            if (table.filled(row) >= Math.max(2, width / 3) && numbers(row) * 2 <= table.filled(row)) {
                // A first device without numbers looks like a header, too, but says less of what columns are.
                best = best < 0 || saying(row) > saying(best) ? row : best;
                if (row + 1 < table.height() && numbers(row + 1) * 3 >= table.filled(row + 1) && numbers(row + 1) > 0) {
                    break;
                }
            }
        }
        best = Math.max(0, best);
        headerTo = isUnits(best + 1) ? best + 1 : best;
        headerFrom = best;
        while (headerFrom > 0 && table.filled(headerFrom - 1) >= 2 && numbers(headerFrom - 1) == 0) {
            headerFrom--;
        }
    }

    private boolean isUnits(int row) {
        return row < table.height()
                && table.filled(row) > 0
                && table.rows().get(row).stream()
                        .allMatch(c ->
                                c.isEmpty() || !HeaderWords.unitOf(c.text()).isEmpty());
    }

    private long saying(int row) {
        return table.rows().get(row).stream()
                .map(c -> HeaderWords.of(c.text()))
                .filter(HeaderWords::saysSomething)
                .count();
    }

    private int numbers(int row) {
        return (int) IntStream.range(0, table.width())
                .filter(c -> isNumber(table.cell(row, c))
                        && !RUN_NUMBER.matcher(table.text(row, c)).matches())
                .count();
    }

    private static boolean isNumber(TableCell cell) {
        return cell.form() == TableCell.Form.NUMBER
                || cell.form() == TableCell.Form.DATE
                || cell.form() == TableCell.Form.TEXT
                        && NUMBER_LIKE.matcher(cell.text()).matches();
    }

    /**
     * The words above a column. Of two header rows the upper one names what the lower one goes on with: "2" below "Archive",
     * or "multi" where several have it; where the lower one has a name of its own, the upper one is a heading of many.
     */
    private String heading(int column) {
        String own = table.text(headerTo, column);
        if (headerFrom == headerTo) {
            return own;
        }
        HeaderWords words = HeaderWords.of(own);
        boolean isPart = !own.isEmpty()
                && (words.name().isEmpty()
                        || own.matches("\\d{1,2}")
                        || !HeaderWords.unitOf(own).isEmpty()
                        || isRepeated(own));
        String above = "";
        for (int row = headerTo - 1; row >= headerFrom && above.isEmpty(); row--) {
            above = table.text(row, column);
            for (int before = column - 1; isPart && before > 0 && above.isEmpty(); before--) {
                above = table.text(row, before);
            }
        }
        return own.isEmpty() ? above : isPart && !above.isEmpty() ? joined(above, own) : own;
    }

    private static String joined(String above, String own) {
        return own.matches("\\d{1,2}")
                ? above + " run " + own
                : above + (HeaderWords.unitOf(own).isEmpty() ? " " + own : " (" + own + ")");
    }

    private boolean isRepeated(String own) {
        return IntStream.range(0, table.width())
                        .filter(c -> table.text(headerTo, c).equals(own))
                        .count()
                > 1;
    }

    private List<TableCell> below(int column) {
        return IntStream.range(headerTo + 1, table.height())
                .filter(r -> table.filled(r) > 1)
                .mapToObj(r -> table.cell(r, column))
                .filter(c -> !c.isEmpty())
                .toList();
    }

    private void columns() {
        int width = table.width();
        List<HeaderWords> words = new ArrayList<>();
        Map<String, Integer> sisters = new HashMap<>();
        for (int column = 0; column < width; column++) {
            HeaderWords of = HeaderWords.of(heading(column));
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
                    .filter(p ->
                            p.role() != ColumnRole.TEST && !below(p.column()).isEmpty())
                    .filter(p -> below(p.column()).stream().noneMatch(LayoutGuess::isNumber))
                    .findFirst()
                    .ifPresent(p -> plans.set(p.column(), ColumnPlan.of(p.column(), ColumnRole.MODEL)));
        }
    }

    private ColumnPlan plan(int column, HeaderWords of) {
        List<TableCell> cells = below(column);
        if (cells.isEmpty()) {
            return ColumnPlan.of(column, ColumnRole.IGNORED);
        }
        long numbers = cells.stream().filter(LayoutGuess::isNumber).count();
        long words = cells.stream()
                .filter(c -> !isNumber(c) && !TableReading.isState(c.text()))
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
                && HeaderWords.of(table.text(headerTo, column + 1)).metric().contains("low");
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
                .allMatch(c -> table.text(row, c).equals(table.text(headerTo, c)));
    }

    private String currency() {
        for (ColumnPlan p : plans) {
            if (p.role() == ColumnRole.MODEL_FIELD && p.name().equals("price")) {
                String all = p.unit()
                        + below(p.column()).stream().map(TableCell::text).toList();
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
                .flatMap(p -> below(p.column()).stream())
                .noneMatch(c -> c.text().matches("\\d{1,2}/(?:1[3-9]|2\\d|3[01])/.*"));
    }

    private @Nullable String deviceClass(String name) {
        String words = (name + " " + table.name() + " " + heading(0) + " " + titles()).toLowerCase(Locale.ROOT);
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

    /** What stands above the header. */
    private String titles() {
        StringBuilder all = new StringBuilder();
        for (int row = 0; row < headerFrom; row++) {
            table.rows().get(row).forEach(c -> all.append(c.text()).append(' '));
        }
        return all.toString();
    }

    private static String suiteName(String name) {
        String plain = name.replaceFirst("\\.[A-Za-z]{2,4}$", "")
                .replaceAll("[_-]+", " ")
                .strip();
        String shown = plain.isEmpty() ? "Imported tests" : plain;
        return shown.substring(0, 1).toUpperCase(Locale.ROOT) + shown.substring(1, Math.min(shown.length(), 80));
    }

    /** Devices stand beside each other where the first column names tests or facts, or where rows are of one size and columns are not. */
    private static boolean isAcross(Table table, KnownNames known) {
        if (table.height() < 2 || table.width() < 2) {
            return false;
        }
        LayoutGuess down = new LayoutGuess(table, known);
        down.header();
        Table turned = table.transposed();
        LayoutGuess across = new LayoutGuess(turned, known);
        across.header();
        double votes = down.namedColumns() - across.namedColumns();
        if (FIRST_WORDS_ACROSS.matcher(table.text(down.headerTo, 0)).matches()) {
            votes -= 1.5;
        }
        votes += down.knownDevices() - across.knownDevices();
        return votes < 0 || votes == 0 && down.spread() > across.spread() * 1.5;
    }

    /** How many columns have a heading that says what it is, or a unit. */
    private double namedColumns() {
        double named = 0;
        Set<ColumnRole> roles = new HashSet<>();
        for (int column = 0; column < table.width(); column++) {
            HeaderWords of = HeaderWords.of(heading(column));
            Optional<ColumnRole> role = of.role();
            if (of.field().isPresent() || of.fact().isPresent()) {
                named += 1;
            } else if (role.isPresent()) {
                // Once each: "Tablet" over every other column is a heading that comes again.
                named += !roles.add(role.get())
                        ? 0
                        : role.get() == ColumnRole.CHECK || role.get() == ColumnRole.IGNORED ? 0.5 : 1;
            } else if (of.saysSomething()) {
                named += 0.7;
            }
        }
        return named;
    }

    private double knownDevices() {
        return IntStream.range(headerTo + 1, table.height())
                .filter(r -> known.model(table.text(r, 0)).isPresent())
                .count();
    }

    /** How far the sizes of the numbers in one column lie apart, over all columns. */
    private double spread() {
        TableNumbers numbers = TableNumbers.of(table);
        double sum = 0;
        int columns = 0;
        for (int column = 1; column < table.width(); column++) {
            double[] logs = below(column).stream()
                    .map(numbers::plain)
                    .filter(t -> t.matches("\\d+(?:\\.\\d+)?"))
                    .mapToDouble(Double::parseDouble)
                    .filter(v -> v > 0)
                    .map(Math::log)
                    .toArray();
            if (logs.length > 1) {
                double mean = java.util.Arrays.stream(logs).average().orElse(0);
                sum += Math.sqrt(java.util.Arrays.stream(logs)
                        .map(l -> (l - mean) * (l - mean))
                        .average()
                        .orElse(0));
                columns++;
            }
        }
        return columns == 0 ? Double.POSITIVE_INFINITY : sum / columns;
    }
}
