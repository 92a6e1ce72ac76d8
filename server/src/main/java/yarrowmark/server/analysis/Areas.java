package yarrowmark.server.analysis;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import yarrowmark.core.compare.Materiality;
import yarrowmark.core.compare.OverallComparison;
import yarrowmark.core.compare.PairComparison;
import yarrowmark.core.compare.Reversal;
import yarrowmark.core.standing.PurposeWeights;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.catalog.PurposeRow;
import yarrowmark.server.ledger.sample.KnownNoise;

/** An overall by its groups and suites: what each is by itself, what it adds, what is left without it, and what turns the whole round. */
final class Areas {
    private final List<MetricRow> counted;
    private final List<PairComparison> pairs;
    private final double[] weights;
    private final OverallComparison all;
    private final PurposeWeights purpose;
    private final KnownNoise noises;
    private final Materiality materiality;
    private final double[] differences;
    private final List<Comparison.Area> groups;
    private final List<Comparison.Area> suites;

    Areas(
            List<MetricRow> counted,
            List<PairComparison> pairs,
            double[] weights,
            OverallComparison all,
            PurposeRow purpose,
            KnownNoise noises,
            Materiality materiality) {
        this.counted = counted;
        this.pairs = pairs;
        this.weights = weights;
        this.all = all;
        this.purpose = purpose.weighing().over(counted);
        this.noises = noises;
        this.materiality = materiality;
        this.differences =
                pairs.stream().mapToDouble(PairComparison::difference).toArray();
        this.groups = areas(m -> "group:" + m.group().name(), m -> m.group().label());
        this.suites = areas(Areas::suiteKey, m -> m.suite() + " " + m.version());
    }

    private static String suiteKey(MetricRow m) {
        return "suite:" + m.suiteVersionId();
    }

    private static String testKey(MetricRow m) {
        return "test:" + m.testId();
    }

    List<Comparison.Area> groups() {
        return groups;
    }

    List<Comparison.Area> suites() {
        return suites;
    }

    private List<Comparison.Area> areas(Function<MetricRow, String> keyOf, Function<MetricRow, String> nameOf) {
        Map<String, List<Integer>> by = new LinkedHashMap<>();
        for (int i = 0; i < counted.size(); i++) {
            by.computeIfAbsent(keyOf.apply(counted.get(i)), k -> new ArrayList<>())
                    .add(i);
        }
        double whole = 0;
        for (double w : weights) {
            whole += w;
        }
        List<Comparison.Area> areas = new ArrayList<>();
        for (Map.Entry<String, List<Integer>> e : by.entrySet()) {
            List<Integer> own = e.getValue();
            double[] of = own.stream().mapToDouble(i -> weights[i]).toArray();
            OverallComparison alone = OverallComparison.of(
                    own.stream().map(pairs::get).toList(),
                    of,
                    own.stream().map(counted::get).map(noises::day).toList(),
                    materiality);
            MetricRow any = counted.get(own.get(0));
            double weight = 0;
            double percent = 0;
            for (int i : own) {
                weight += weights[i] / whole;
                percent += all.contributions().get(i);
            }
            areas.add(new Comparison.Area(
                    e.getKey(),
                    any.group(),
                    nameOf.apply(any),
                    own.size(),
                    weight,
                    percent,
                    alone.ratio(),
                    alone.interval().low(),
                    alone.interval().high(),
                    alone.verdict(),
                    without(own)));
        }
        return areas;
    }

    private @Nullable Double without(List<Integer> out) {
        Set<Integer> gone = Set.copyOf(out);
        int[] kept = IntStream.range(0, counted.size())
                .filter(i -> !gone.contains(i))
                .toArray();
        double[] spread = purpose.over(kept);
        return spread.length == 0 ? null : Math.exp(Reversal.mean(differences, kept, spread));
    }

    /** A group or a suite that turns it alone is told before tests, because it says more. */
    Comparison.@Nullable Reverses reverses() {
        double sign = Math.signum(all.difference());
        if (sign == 0) {
            return null;
        }
        List<Comparison.Area> parts = new ArrayList<>(groups);
        parts.addAll(suites);
        Reversal byTests = Reversal.of(differences, purpose::over).orElse(null);
        if (byTests != null && byTests.out().size() == 1) {
            MetricRow m = counted.get(byTests.out().get(0));
            return new Comparison.Reverses(testKey(m), List.of(m.test()), Math.exp(byTests.difference()));
        }
        for (Comparison.Area part : parts) {
            if (part.without() != null && Math.log(part.without()) * sign <= 0) {
                return new Comparison.Reverses(part.key(), List.of(part.name()), part.without());
            }
        }
        return byTests == null
                ? null
                : new Comparison.Reverses(
                        null,
                        byTests.out().stream().map(i -> counted.get(i).test()).toList(),
                        Math.exp(byTests.difference()));
    }
}
