package yarrowmark.server.standing;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.core.measure.Scale;
import yarrowmark.core.standing.MeritGrid;
import yarrowmark.core.standing.Ranking;
import yarrowmark.core.standing.Reference;
import yarrowmark.core.standing.Standing;
import yarrowmark.core.stats.NoisePrior;
import yarrowmark.core.stats.SampleMoments;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.catalog.PurposeRow;
import yarrowmark.server.catalog.PurposeWeighing;
import yarrowmark.server.catalog.Purposes;
import yarrowmark.server.ledger.LentNoise;
import yarrowmark.server.ledger.ReadingMarks;
import yarrowmark.server.ledger.ReadingMarks.HeldSample;
import yarrowmark.server.ledger.SampleMirror;
import yarrowmark.server.ledger.Samples.SampleRow;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.Revision;

/** Ranks what was tested, from stored samples; single readings are never read. Answers are kept until the records change. */
@Service
class StandingsService {
    private static final int KEPT = 40;

    private record Key(StandingsAsk ask, long revision) { }

    private record Answer(Ranked ranked, Standings shown) { }

    /** @param metrics each once, the oldest of those that are compared. @param samples under the ids of these */
    private record Pooled(List<MetricRow> metrics, List<SampleRow> samples, Map<Long, Optional<NoisePrior>> noise, Map<Long, Integer> staleTests) { }

    private final Catalog catalog;
    private final Purposes purposes;
    private final SampleMirror samples;
    private final LentNoise lent;
    private final ReadingMarks marks;
    private final Entrants entrants;
    private final Revision revision;
    private final StandingsShaper shaper;
    private final Map<Key, Answer> kept = new LinkedHashMap<>(16, 0.75f, true) {
        private static final long serialVersionUID = 1;

        @Override
        protected boolean removeEldestEntry(Map.Entry<Key, Answer> eldest) {
            return size() > KEPT;
        }
    };

    StandingsService(Catalog catalog, Purposes purposes, SampleMirror samples, LentNoise lent, ReadingMarks marks, Entrants entrants, StandingsShaper shaper, Revision revision) {
        this.catalog = catalog;
        this.purposes = purposes;
        this.samples = samples;
        this.lent = lent;
        this.marks = marks;
        this.entrants = entrants;
        this.shaper = shaper;
        this.revision = revision;
    }

    /** By the purpose that is asked for. */
    @Transactional(readOnly = true)
    public Ranked ranked(StandingsAsk ask) {
        return answer(ask).ranked();
    }

    /** The same as it is shown. */
    @Transactional(readOnly = true)
    public Standings shown(StandingsAsk ask) {
        return answer(ask).shown();
    }

    private Answer answer(StandingsAsk ask) {
        Key key = new Key(ask, revision.now());
        synchronized (kept) {
            Answer there = kept.get(key);
            if (there != null) {
                return there;
            }
        }
        PurposeRow purpose = purposes.purpose(ask.purpose());
        Ranked ranked = rank(ask, purpose.name(), purpose.weighing());
        Answer made = new Answer(ranked, shaper.shaped(ranked));
        synchronized (kept) {
            kept.keySet().removeIf(k -> k.revision() < key.revision());
            kept.put(key, made);
        }
        return made;
    }

    /** By weights that somebody tries out. */
    @Transactional(readOnly = true)
    public Ranked tried(StandingsAsk ask, PurposeWeighing weighing) {
        return rank(ask, "weights that are being tried out", weighing);
    }

    private Ranked rank(StandingsAsk ask, String purpose, PurposeWeighing weighing) {
        List<MetricRow> all = catalog.metricsInUse();
        List<Standings.LeftOut> leftOut = new ArrayList<>();
        Set<Long> outdated = catalog.outdatedVersions();
        Pooled pooled = pooled(candidates(all, ask, outdated, leftOut), all, outdated, !ask.oneMetric(), leftOut);
        Entrants.Chosen chosen = entrants.of(ask, configurations(pooled.samples()));
        Set<Long> in = ask.perModel() == null || ask.perModel() == StandingsAsk.PerModel.BEST ? chosen.members().keySet() : new LinkedHashSet<>(Entrants.onePerModel(chosen, ask.perModel()));
        Ranked ranked = rank(ask, purpose, weighing, pooled, chosen, in, leftOut);
        if (ask.perModel() != StandingsAsk.PerModel.BEST) {
            return ranked;
        }
        Map<Long, Long> best = new LinkedHashMap<>();
        // Entries come in order, so the first of a model is its best.
        ranked.standing().entries().forEach(e -> best.putIfAbsent(chosen.members().get(ranked.rows().get(e.row())).configuration().modelId(), ranked.rows().get(e.row())));
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

    private static Ranked rank(StandingsAsk ask, String purpose, PurposeWeighing weighing, Pooled pooled, Entrants.Chosen chosen, Set<Long> in, List<Standings.LeftOut> leftOutBefore) {
        StandingGrid grid = new StandingGrid(pooled.metrics(), pooled.samples(), pooled.noise(), in);
        if (grid.configurations().isEmpty()) {
            throw Entrants.nobody();
        }
        List<Standings.LeftOut> leftOut = new ArrayList<>(leftOutBefore);
        noteWithoutScores(pooled.metrics(), grid, leftOut);
        double[] weights = weights(purpose, weighing, grid.metrics(), ask.oneMetric());
        int[] weighed = IntStream.range(0, weights.length).filter(j -> weights[j] > 0).toArray();
        List<MetricRow> metrics = IntStream.of(weighed).mapToObj(grid.metrics()::get).toList();
        double[] used = IntStream.of(weighed).mapToDouble(j -> weights[j]).toArray();
        MeritGrid merits = grid.merits().columns(weighed);
        if (ask.per() != null) {
            merits = merits.per(grid.configurations().stream().mapToDouble(chosen.quantity()::get).toArray());
        }
        Integer base = ask.isTypical() ? null : reference(grid, metrics, used, ask.base());
        Reference reference = base == null ? Reference.typical() : Reference.row(base);
        Long baseId = base == null ? null : grid.configurations().get(base);
        String note = base == null || ask.base() == null || ask.base().equals(baseId) ? null : "The base that was asked for is not among those ranked here, so another one was taken.";
        return new Ranked(ask, purpose, metrics, used, grid.configurations(), merits, grid, reference, baseId, note, Ranking.of(merits, used, reference), chosen, pooled.staleTests(), leftOut);
    }

    private static List<MetricRow> candidates(List<MetricRow> all, StandingsAsk ask, Set<Long> outdated, List<Standings.LeftOut> leftOut) {
        if (ask.metric() != null) {
            MetricRow metric = all.stream().filter(m -> m.id() == ask.metric()).findFirst().orElseThrow(() -> Problem.notFound("metric", ask.metric()));
            if (metric.scale() != Scale.RATIO) {
                throw Problem.invalid("not-a-ratio", metric.name() + " is compared by differences; it has no index and cannot be ranked by ratios.");
            }
            return List.of(metric);
        }
        if (ask.suite() != null && all.stream().noneMatch(m -> m.suiteVersionId() == ask.suite())) {
            throw Problem.notFound("suite version", ask.suite());
        }
        if (ask.test() != null && all.stream().noneMatch(m -> m.testId() == ask.test())) {
            throw Problem.notFound("test", ask.test());
        }
        List<MetricRow> scope = all.stream().filter(m -> (ask.group() == null || m.group() == ask.group()) && (ask.suite() == null || m.suiteVersionId() == ask.suite()) && (ask.test() == null || m.testId() == ask.test())).toList();
        for (MetricRow m : scope) {
            // How often a curve dents is no test of its own that anybody would miss.
            if (m.scale() != Scale.RATIO && m.series() == null) {
                leftOut.add(new Standings.LeftOut(m.test(), m.suite(), "compared by differences, so it enters no mean of ratios"));
            }
        }
        List<MetricRow> counted = scope.stream().filter(m -> m.main() && m.scale() == Scale.RATIO).toList();
        if (!Boolean.TRUE.equals(ask.fresh())) {
            return counted;
        }
        counted.stream().filter(m -> outdated.contains(m.suiteVersionId())).forEach(m -> leftOut.add(new Standings.LeftOut(m.test(), m.suite(), "a newer version of the suite is in force")));
        return counted.stream().filter(m -> !outdated.contains(m.suiteVersionId())).toList();
    }

    /** Metrics of joined comparability groups are one; in totals without what a display holds. */
    private Pooled pooled(List<MetricRow> wanted, List<MetricRow> all, Set<Long> outdated, boolean total, List<Standings.LeftOut> leftOut) {
        Map<Long, Long> oldest = catalog.comparable(all);
        Set<Long> columns = wanted.stream().map(m -> oldest.get(m.id())).collect(Collectors.toSet());
        List<MetricRow> members = all.stream().filter(m -> columns.contains(oldest.get(m.id()))).toList();
        Set<Long> stale = members.stream().filter(m -> outdated.contains(m.suiteVersionId())).map(MetricRow::id).collect(Collectors.toSet());
        boolean joined = members.stream().anyMatch(m -> oldest.get(m.id()) != m.id());
        List<MetricRow> metrics = all.stream().filter(m -> columns.contains(m.id())).toList();
        Set<HeldSample> held = total ? marks.held(members) : Set.of();
        noteHeld(held, metrics, oldest, leftOut);
        Map<Long, Integer> staleTests = new HashMap<>();
        List<SampleRow> found = new ArrayList<>();
        Map<HeldSample, SampleMoments> pools = new LinkedHashMap<>();
        List<SampleRow> stored = samples.ofMetrics(members.stream().map(MetricRow::id).toList());
        if (held.isEmpty() && stale.isEmpty() && !joined) {
            return new Pooled(metrics, stored, lent.of(metrics, all), staleTests);
        }
        for (SampleRow row : stored) {
            if (!held.isEmpty() && held.contains(new HeldSample(row.configurationId(), row.metricId()))) {
                continue;
            }
            if (stale.contains(row.metricId())) {
                staleTests.merge(row.configurationId(), 1, Integer::sum);
            }
            if (joined) {
                pools.merge(new HeldSample(row.configurationId(), oldest.get(row.metricId())), row.moments(), SampleMoments::pooled);
            } else {
                found.add(row);
            }
        }
        pools.forEach((place, moments) -> found.add(new SampleRow(place.configurationId(), place.metricId(), moments)));
        return new Pooled(metrics, found, lent.of(metrics, all), staleTests);
    }

    private static void noteHeld(Set<HeldSample> held, List<MetricRow> metrics, Map<Long, Long> oldest, List<Standings.LeftOut> leftOut) {
        metrics.forEach(m -> {
            long configurations = held.stream().filter(h -> oldest.get(h.metricId()) == m.id()).map(HeldSample::configurationId).distinct().count();
            if (configurations > 0) {
                leftOut.add(new Standings.LeftOut(m.test(), m.suite(), "held at the display's rate on " + configurations + (configurations == 1 ? " configuration" : " configurations") + ", so it says nothing about them"));
            }
        });
    }

    private static double[] weights(String purpose, PurposeWeighing weighing, List<MetricRow> metrics, boolean oneAlone) {
        if (oneAlone) {
            return new double[] {1};
        }
        try {
            return weighing.spread(metrics);
        } catch (IllegalArgumentException e) {
            throw Problem.invalid("no-weight", "The purpose \"" + purpose + "\" gives no weight to any test that was run here. Choose another purpose, or other tests.");
        }
    }

    private static void noteWithoutScores(List<MetricRow> candidates, StandingGrid grid, List<Standings.LeftOut> leftOut) {
        Set<Long> present = grid.metrics().stream().map(MetricRow::id).collect(Collectors.toSet());
        Map<String, List<MetricRow>> bySuite = candidates.stream().collect(Collectors.groupingBy(MetricRow::suite, LinkedHashMap::new, Collectors.toList()));
        bySuite.forEach((suite, metrics) -> {
            List<MetricRow> absent = metrics.stream().filter(m -> !present.contains(m.id())).toList();
            if (absent.size() == metrics.size() && metrics.size() > 1) {
                leftOut.add(new Standings.LeftOut("all " + metrics.size() + " tests", suite, "nothing ranked here was measured with it"));
            } else {
                absent.forEach(m -> leftOut.add(new Standings.LeftOut(m.test(), m.suite(), "nothing ranked here was measured with it")));
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
