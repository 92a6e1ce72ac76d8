package yarrowmark.core.table;

import java.util.Arrays;
import java.util.regex.Pattern;
import java.util.stream.IntStream;

/** Which way the devices of a table stand. */
final class Orientation {
    private static final Pattern FIRST_WORDS_ACROSS =
            Pattern.compile("(?i)tests?|benchmarks?|metric|score|spec|feature|property|workload|messung|kategorie");

    private Orientation() {}

    /** Devices stand beside each other where the first column names tests or facts, or where rows are of one size and columns are not. */
    static boolean isAcross(Table table, KnownNames known) {
        if (table.height() < 2 || table.width() < 2) {
            return false;
        }
        TableHead down = new TableHead(table);
        Table turned = table.transposed();
        TableHead across = new TableHead(turned);
        double votes = down.namedColumns() - across.namedColumns();
        if (FIRST_WORDS_ACROSS.matcher(table.text(down.to(), 0)).matches()) {
            votes -= 1.5;
        }
        votes += knownDevices(table, down, known) - knownDevices(turned, across, known);
        return votes < 0 || votes == 0 && spread(table, down) > spread(turned, across) * 1.5;
    }

    private static double knownDevices(Table table, TableHead head, KnownNames known) {
        return IntStream.range(head.to() + 1, table.height())
                .filter(r -> known.model(table.text(r, 0)).isPresent())
                .count();
    }

    /** How far the sizes of the numbers in one column lie apart, over all columns. */
    private static double spread(Table table, TableHead head) {
        TableNumbers numbers = TableNumbers.of(table);
        double sum = 0;
        int columns = 0;
        for (int column = 1; column < table.width(); column++) {
            double[] logs = head.below(column).stream()
                    .map(numbers::plain)
                    .filter(t -> t.matches("\\d+(?:\\.\\d+)?"))
                    .mapToDouble(Double::parseDouble)
                    .filter(v -> v > 0)
                    .map(Math::log)
                    .toArray();
            if (logs.length > 1) {
                double mean = Arrays.stream(logs).average().orElse(0);
                sum += Math.sqrt(Arrays.stream(logs)
                        .map(l -> (l - mean) * (l - mean))
                        .average()
                        .orElse(0));
                columns++;
            }
        }
        return columns == 0 ? Double.POSITIVE_INFINITY : sum / columns;
    }
}
