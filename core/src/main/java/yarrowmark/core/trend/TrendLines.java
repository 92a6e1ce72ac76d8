package yarrowmark.core.trend;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import yarrowmark.core.compare.Materiality;

/**
 * All lines of a plot together: what their steps tell about days is lent to each, and all steps are corrected together, because
 * whoever looks at twenty lines has looked twenty times. Source: section 7 of the method.
 *
 * @param lines    one for each metric, in order
 * @param overalls one for each set of metrics, in order; empty where none of its metrics has a result with weight
 * @param lending  what the series lends
 * @param looks    steps that were corrected together
 */
public record TrendLines(
        List<TrendLine> lines, List<Optional<OverallLine>> overalls, SeriesLending lending, int looks) {
    /**
     * @param metrics  each a line of its own
     * @param overalls sets of metrics, each a line over all of them
     */
    public static TrendLines of(List<TrendMetric> metrics, List<List<TrendMetric>> overalls, Materiality materiality) {
        int configurations = Stream.concat(metrics.stream(), overalls.stream().flatMap(List::stream))
                .mapToInt(m -> m.samples().size())
                .max()
                .orElse(0);
        List<TrendLine> lines =
                metrics.stream().map(m -> TrendLine.alone(m, materiality)).toList();
        List<Optional<OverallLine>> whole =
                overalls.stream().map(o -> OverallLine.alone(o, materiality)).toList();
        List<List<TrendStep>> steps = new ArrayList<>();
        lines.forEach(l -> steps.add(l.steps()));
        whole.forEach(o -> steps.add(o.map(OverallLine::steps).orElse(List.of())));
        SeriesLending lending = SeriesLending.of(steps, configurations);
        List<List<TrendStep>> looked = looked(steps, lending, materiality);
        List<TrendLine> found = new ArrayList<>();
        for (int i = 0; i < lines.size(); i++) {
            found.add(lines.get(i).looked(looked.get(i), TrendLine.changes(metrics.get(i), lending, metrics.size())));
        }
        List<Optional<OverallLine>> foundOveralls = new ArrayList<>();
        for (int i = 0; i < whole.size(); i++) {
            List<TrendStep> own = looked.get(lines.size() + i);
            foundOveralls.add(whole.get(i).map(o -> o.looked(own)));
        }
        return new TrendLines(
                found,
                foundOveralls,
                lending,
                steps.stream().mapToInt(List::size).sum());
    }

    /** One metric that is shown by itself. */
    public static TrendLine ofOne(TrendMetric metric, Materiality materiality) {
        return of(List.of(metric), List.of(), materiality).lines.get(0);
    }

    /** One overall that is shown by itself. */
    public static Optional<OverallLine> overall(List<TrendMetric> metrics, Materiality materiality) {
        return of(List.of(), List.of(metrics), materiality).overalls.get(0);
    }

    static List<List<TrendStep>> looked(List<List<TrendStep>> lines, SeriesLending lending, Materiality materiality) {
        List<List<TrendStep>> lent = lines.stream()
                .map(l -> l.stream().map(s -> s.lent(lending)).toList())
                .toList();
        double[] corrected = ManyLooks.corrected(
                lent.stream().flatMap(List::stream).mapToDouble(TrendStep::p).toArray());
        List<List<TrendStep>> looked = new ArrayList<>();
        int at = 0;
        for (List<TrendStep> line : lent) {
            double whole = line.stream().mapToDouble(TrendStep::delta).sum();
            List<TrendStep> own = new ArrayList<>();
            for (TrendStep s : line) {
                own.add(s.looked(corrected[at++], whole, materiality));
            }
            looked.add(own);
        }
        return looked;
    }
}
