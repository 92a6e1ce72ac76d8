package yarrowmark.core.table;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import yarrowmark.core.table.TableReading.Check;
import yarrowmark.core.table.TableReading.Device;
import yarrowmark.core.table.TableReading.Score;

/** Means and totals that a sheet has of its own, held against its scores. */
record SheetTotals(Table table, TableLayout layout, TableNumbers numbers, List<Device> devices, List<Score> scores) {
    /** Half a digit of what is usually shown. */
    private static final double AGREES = 0.006;

    /** Whether the sheet's own means and totals are those of its row: the mean, the sum, or the geometric mean. */
    static List<Check> checked(
            Table table, TableLayout layout, TableNumbers numbers, List<Device> devices, List<Score> scores) {
        return new SheetTotals(table, layout, numbers, devices, scores).all();
    }

    private List<Check> all() {
        List<Check> all = new ArrayList<>();
        for (ColumnPlan p : layout.columns()) {
            if (p.role() == ColumnRole.CHECK) {
                List<Check> tried = List.of(check(p, "mean"), check(p, "sum"), check(p, "geometric mean"));
                tried.stream()
                        .filter(c -> c.agreeing() > 0)
                        .max(Comparator.comparingInt(Check::agreeing))
                        .or(() -> Optional.of(tried.get(0)))
                        .filter(c -> c.agreeing() + c.rows().size() > 0)
                        .ifPresent(all::add);
            }
        }
        return all;
    }

    private Check check(ColumnPlan p, String of) {
        int agreeing = 0;
        List<Integer> differing = new ArrayList<>();
        for (Device d : devices) {
            String text = numbers.plain(table.cell(d.row(), p.column()));
            double[] values = scores.stream()
                    .filter(s -> s.row() == d.row())
                    .flatMap(s -> s.value().stream())
                    .mapToDouble(v -> v)
                    .toArray();
            if (text.matches("\\d+(?:\\.\\d+)?") && values.length > 0) {
                double computed =
                        switch (of) {
                            case "sum" -> Arrays.stream(values).sum();
                            case "mean" -> Arrays.stream(values).average().orElse(0);
                            default ->
                                Math.exp(Arrays.stream(values)
                                        .map(Math::log)
                                        .average()
                                        .orElse(0));
                        };
                if (Math.abs(Double.parseDouble(text) / computed - 1) < AGREES) {
                    agreeing++;
                } else {
                    differing.add(d.row());
                }
            }
        }
        return new Check(p.column(), table.text(layout.headerTo(), p.column()), of, agreeing, differing);
    }
}
