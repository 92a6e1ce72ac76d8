package yarrowmark.core.table;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;

/**
 * Tables with a score a row: device, test, value. They are read as if each device had one row, with a column for each run of
 * each test; what else stands in a row (a day, a fact) stays with its device, and another day is another row.
 */
public final class LongTable {
    private static final Set<String> TEST = Set.of("test", "benchmark", "workload", "metric", "messung", "prueba");
    private static final Set<String> VALUE =
            Set.of("value", "score", "result", "reading", "wert", "ergebnis", "valeur", "valor");
    private static final Set<String> UNIT = Set.of("unit", "units", "measure unit", "einheit", "unité", "unidad");
    private static final Set<String> RUN = Set.of("run", "pass", "attempt", "lauf", "essai");
    private static final int HEADER_DEPTH = 12;

    private record Test(String name, String unit) {
        String heading(int run, int runs) {
            return name + (unit.isEmpty() ? "" : " (" + unit + ")") + (runs > 1 ? " run " + run : "");
        }
    }

    private LongTable() {}

    /** @return empty where the table has another shape */
    public static Optional<Table> widened(Table table) {
        for (int row = 0; row < Math.min(table.height(), HEADER_DEPTH); row++) {
            int test = column(table, row, TEST);
            int value = column(table, row, VALUE);
            if (test >= 0 && value >= 0 && hasModel(table, row)) {
                return Optional.of(widened(table, row, test, value));
            }
        }
        return Optional.empty();
    }

    private static Table widened(Table table, int header, int test, int value) {
        int unit = column(table, header, UNIT);
        int run = column(table, header, RUN);
        List<Integer> kept = IntStream.range(0, table.width())
                .filter(c -> c != test && c != value && c != unit && c != run)
                .boxed()
                .toList();
        Map<Test, Integer> runs = new LinkedHashMap<>();
        Map<List<TableCell>, Map<Test, Map<Integer, TableCell>>> devices = new LinkedHashMap<>();
        for (int row = header + 1; row < table.height(); row++) {
            int at = row;
            String name = table.text(row, test);
            if (!name.isEmpty()) {
                Test of = new Test(name, unit < 0 ? "" : table.text(row, unit));
                Map<Integer, TableCell> own = devices.computeIfAbsent(
                                kept.stream().map(c -> table.cell(at, c)).toList(), k -> new LinkedHashMap<>())
                        .computeIfAbsent(of, k -> new LinkedHashMap<>());
                int said = run < 0 || !table.text(row, run).matches("[1-9]\\d{0,2}")
                        ? 0
                        : Integer.parseInt(table.text(row, run));
                // A run that is said twice is another one.
                int number = said > 0 && !own.containsKey(said)
                        ? said
                        : own.keySet().stream().mapToInt(n -> n).max().orElse(0) + 1;
                own.put(number, table.cell(row, value));
                runs.merge(of, number, Math::max);
            }
        }
        List<List<TableCell>> wide = new ArrayList<>();
        List<TableCell> headings =
                new ArrayList<>(kept.stream().map(c -> table.cell(header, c)).toList());
        runs.forEach((t, n) -> IntStream.rangeClosed(1, n).forEach(i -> headings.add(TableCell.of(t.heading(i, n)))));
        wide.add(headings);
        devices.forEach((device, tests) -> {
            List<TableCell> row = new ArrayList<>(device);
            runs.forEach((t, n) -> IntStream.rangeClosed(1, n)
                    .forEach(i -> row.add(tests.getOrDefault(t, Map.of()).getOrDefault(i, TableCell.EMPTY))));
            wide.add(row);
        });
        return new Table(table.name(), wide);
    }

    private static boolean hasModel(Table table, int row) {
        return IntStream.range(0, table.width()).anyMatch(c -> HeaderWords.of(table.text(row, c))
                .role()
                .filter(r -> r == ColumnRole.MODEL)
                .isPresent());
    }

    private static int column(Table table, int row, Set<String> words) {
        return IntStream.range(0, table.width())
                .filter(c -> words.contains(table.text(row, c).strip().toLowerCase(Locale.ROOT)))
                .findFirst()
                .orElse(-1);
    }
}
