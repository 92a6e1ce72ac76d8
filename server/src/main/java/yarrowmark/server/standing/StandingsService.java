package yarrowmark.server.standing;

import static yarrowmark.server.platform.Require.require;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.core.standing.CommonUse;
import yarrowmark.core.standing.MeritGrid;
import yarrowmark.core.standing.Ranking;
import yarrowmark.core.standing.Reference;
import yarrowmark.core.standing.SharedMetrics;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.catalog.PurposeRow;
import yarrowmark.server.catalog.PurposeWeighing;
import yarrowmark.server.catalog.Purposes;
import yarrowmark.server.ledger.mark.ReadingMarks;
import yarrowmark.server.ledger.sample.Samples.SampleRow;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.change.Revision;
import yarrowmark.server.platform.change.UntilChanged;

/** Ranks what was tested, from stored samples; single readings are never read. Answers are kept until the records change. */
@Service
class StandingsService {
    private static final int KEPT = 40;

    /** Ranked, and once somebody wants to see it, as it is shown: of many thousand rows that is most of the work. */
    private final class Answer {
        private final Ranked ranked;
        private @Nullable Standings shown;

        Answer(Ranked ranked) {
            this.ranked = ranked;
        }

        synchronized Standings shown() {
            if (shown == null) {
                shown = shaper.shaped(ranked);
            }
            return shown;
        }
    }

    private final Purposes purposes;
    private final PooledSamples samples;
    private final StandingFilter entrants;
    private final StandingsShaper shaper;
    /** What is asked again stays, also while somebody asks once for each of a thousand metrics. */
    private final UntilChanged<StandingsAsk, Answer> kept;

    StandingsService(
            Purposes purposes,
            PooledSamples samples,
            StandingFilter entrants,
            StandingsShaper shaper,
            Revision revision) {
        this.purposes = purposes;
        this.samples = samples;
        this.entrants = entrants;
        this.shaper = shaper;
        this.kept = new UntilChanged<>(revision, KEPT);
    }

    /** By the purpose that is asked for. */
    @Transactional(readOnly = true)
    public Ranked ranked(StandingsAsk ask) {
        return answer(ask).ranked;
    }

    /** The same as it is shown. */
    @Transactional(readOnly = true)
    public Standings shown(StandingsAsk ask) {
        return answer(ask).shown();
    }

    private Answer answer(StandingsAsk ask) {
        return kept.get(ask, () -> {
            PurposeRow purpose = purposes.purpose(ask.purpose());
            return new Answer(rank(ask, purpose.name(), purpose.weighing()));
        });
    }

    /** By weights that somebody tries out. */
    @Transactional(readOnly = true)
    public Ranked tried(StandingsAsk ask, PurposeWeighing weighing) {
        return rank(ask, "weights that are being tried out", weighing);
    }

    private Ranked rank(StandingsAsk ask, String purpose, PurposeWeighing weighing) {
        List<Standings.LeftOut> leftOut = new ArrayList<>();
        PooledSamples.Pooled pooled = samples.of(ask, leftOut);
        StandingFilter.Chosen chosen = entrants.of(ask, configurations(pooled.samples()));
        Set<Long> in = ask.perModel() == null || ask.perModel() == StandingsAsk.PerModel.BEST
                ? chosen.members().keySet()
                : new LinkedHashSet<>(StandingFilter.onePerModel(chosen, ask.perModel()));
        Ranked ranked = rank(ask, purpose, weighing, pooled, chosen, in, leftOut);
        if (ask.perModel() != StandingsAsk.PerModel.BEST) {
            return ranked;
        }
        Map<Long, Long> best = new LinkedHashMap<>();
        // Entries come in order, so the first of a model is its best.
        ranked.standing()
                .entries()
                .forEach(e -> best.putIfAbsent(
                        require(chosen.members(), ranked.rows().get(e.row()))
                                .configuration()
                                .modelId(),
                        ranked.rows().get(e.row())));
        return rank(ask, purpose, weighing, pooled, chosen, new HashSet<>(best.values()), leftOut);
    }

    /** Rows of one configuration lie together, so each is noted once or a few times. */
    private static Set<Long> configurations(List<SampleRow> rows) {
        Set<Long> ids = new HashSet<>();
        long before = -1;
        for (SampleRow row : rows) {
            if (row.configurationId() != before) {
                before = row.configurationId();
                ids.add(before);
            }
        }
        return ids;
    }

    private static Ranked rank(
            StandingsAsk ask,
            String purpose,
            PurposeWeighing weighing,
            PooledSamples.Pooled pooled,
            StandingFilter.Chosen chosen,
            Set<Long> in,
            List<Standings.LeftOut> leftOutBefore) {
        StandingGrid grid = new StandingGrid(pooled.metrics(), pooled.samples(), pooled.noise(), in);
        if (grid.configurations().isEmpty()) {
            throw StandingFilter.nobody();
        }
        List<Standings.LeftOut> leftOut = new ArrayList<>(leftOutBefore);
        noteWithoutScores(pooled.metrics(), grid, leftOut);
        CommonUse.Weighing spread = weighing.over(grid.metrics())::over;
        int[] taken = ask.overCommonUse()
                ? CommonUse.of(grid.merits(), spread)
                : IntStream.range(0, grid.metrics().size()).toArray();
        noteRare(grid, taken, leftOut);
        Weighed every = weighed(purpose, weighing, grid, taken, ask.oneMetric());
        // What one of them has alone can say nothing of the others, and must not thin out the weight of its group.
        int[] shared = ask.oneMetric() ? every.columns() : shared(grid, every, ask);
        Weighed all = shared.length == every.columns().length ? every : weighed(purpose, weighing, grid, shared, false);
        noteAlone(grid, every.columns(), all.columns(), leftOut);
        int[] weighed = all.columns();
        double[] used = all.weights();
        List<MetricRow> metrics =
                IntStream.of(weighed).mapToObj(grid.metrics()::get).toList();
        MeritGrid merits = grid.merits().columns(weighed);
        if (ask.per() != null) {
            merits = merits.per(grid.configurations().stream()
                    .mapToDouble(chosen.quantity()::get)
                    .toArray());
        }
        Integer base = ask.isTypical() ? null : reference(grid, metrics, used, ask.base());
        Reference reference = base == null ? Reference.typical() : Reference.row(base);
        Long baseId = base == null ? null : grid.configurations().get(base);
        String note = base == null || ask.base() == null || ask.base().equals(baseId)
                ? null
                : "The base that was asked for is not among those ranked here, so another one was taken.";
        return new Ranked(
                ask,
                purpose,
                metrics,
                used,
                grid.configurations(),
                merits,
                grid,
                reference,
                baseId,
                note,
                Ranking.of(merits, used, reference),
                chosen,
                pooled.staleTests(),
                pooled.held().stream()
                        .map(ReadingMarks.HeldSample::configurationId)
                        .collect(Collectors.toSet()),
                taken.length < grid.metrics().size(),
                ask.oneMetric() ? List.of() : Offers.of(grid, spread, taken),
                leftOut);
    }

    /** Tests that few have are named, because they could be asked for. */
    private static void noteRare(StandingGrid grid, int[] taken, List<Standings.LeftOut> leftOut) {
        Set<Integer> in = IntStream.of(taken).boxed().collect(Collectors.toSet());
        for (int j = 0; j < grid.metrics().size(); j++) {
            if (!in.contains(j)) {
                MetricRow m = grid.metrics().get(j);
                leftOut.add(new Standings.LeftOut(m.test(), m.suite(), "few of those ranked have run it"));
            }
        }
    }

    /** @param columns of the grid that have weight. @param weights of these, summing to 1 */
    private record Weighed(int[] columns, double[] weights) {}

    private static Weighed weighed(
            String purpose, PurposeWeighing weighing, StandingGrid grid, int[] columns, boolean oneAlone) {
        double[] weights = weights(
                purpose,
                weighing,
                IntStream.of(columns).mapToObj(grid.metrics()::get).toList(),
                oneAlone);
        int[] with =
                IntStream.range(0, weights.length).filter(i -> weights[i] > 0).toArray();
        return new Weighed(
                IntStream.of(with).map(i -> columns[i]).toArray(),
                IntStream.of(with).mapToDouble(i -> weights[i]).toArray());
    }

    private static int[] shared(StandingGrid grid, Weighed every, StandingsAsk ask) {
        List<MetricRow> metrics =
                IntStream.of(every.columns()).mapToObj(grid.metrics()::get).toList();
        Reference reference = ask.isTypical()
                ? Reference.typical()
                : Reference.row(reference(grid, metrics, every.weights(), ask.base()));
        return IntStream.of(SharedMetrics.of(grid.merits().columns(every.columns()), every.weights(), reference))
                .map(i -> every.columns()[i])
                .toArray();
    }

    private static void noteAlone(StandingGrid grid, int[] every, int[] kept, List<Standings.LeftOut> leftOut) {
        Set<Integer> in = IntStream.of(kept).boxed().collect(Collectors.toSet());
        for (int column : every) {
            if (!in.contains(column)) {
                MetricRow m = grid.metrics().get(column);
                long ran = IntStream.range(0, grid.configurations().size())
                        .filter(r -> grid.sample(r, m.id()) != null)
                        .count();
                leftOut.add(new Standings.LeftOut(
                        m.test(),
                        m.suite(),
                        ran < 2 ? "only one of those ranked has run it" : "nothing shared leads from it to the base"));
            }
        }
    }

    private static double[] weights(
            String purpose, PurposeWeighing weighing, List<MetricRow> metrics, boolean oneAlone) {
        if (oneAlone) {
            return new double[] {1};
        }
        try {
            return weighing.spread(metrics);
        } catch (IllegalArgumentException e) {
            throw Problem.invalid(
                    "no-weight",
                    "The purpose \"" + purpose
                            + "\" gives no weight to any test that was run here. Choose another purpose, or other tests.");
        }
    }

    private static void noteWithoutScores(
            List<MetricRow> candidates, StandingGrid grid, List<Standings.LeftOut> leftOut) {
        Set<Long> present = grid.metrics().stream().map(MetricRow::id).collect(Collectors.toSet());
        Map<String, List<MetricRow>> bySuite = candidates.stream()
                .collect(Collectors.groupingBy(MetricRow::suite, LinkedHashMap::new, Collectors.toList()));
        bySuite.forEach((suite, metrics) -> {
            List<MetricRow> absent =
                    metrics.stream().filter(m -> !present.contains(m.id())).toList();
            if (absent.size() == metrics.size() && metrics.size() > 1) {
                leftOut.add(new Standings.LeftOut(
                        "all " + metrics.size() + " tests", suite, "nothing ranked here was measured with it"));
            } else {
                absent.forEach(m -> leftOut.add(
                        new Standings.LeftOut(m.test(), m.suite(), "nothing ranked here was measured with it")));
            }
        });
    }

    /** The base that was asked for where it can be one, else the first made of those with the most coverage. */
    private static int reference(StandingGrid grid, List<MetricRow> metrics, double[] weights, @Nullable Long asked) {
        int at = asked == null ? -1 : grid.row(asked);
        if (at >= 0 && coverage(grid, metrics, weights, at) > 0) {
            return at;
        }
        int best = 0;
        double most = coverage(grid, metrics, weights, 0);
        for (int r = 1; r < grid.configurations().size(); r++) {
            double own = coverage(grid, metrics, weights, r);
            if (own > most + 1e-9) {
                best = r;
                most = own;
            }
        }
        return best;
    }

    private static double coverage(StandingGrid grid, List<MetricRow> metrics, double[] weights, int row) {
        double coverage = 0;
        for (int j = 0; j < weights.length; j++) {
            coverage += grid.sample(row, metrics.get(j).id()) != null ? weights[j] : 0;
        }
        return coverage;
    }
}
