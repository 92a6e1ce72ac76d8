package yarrowmark.server.standing;

import static yarrowmark.server.platform.Require.require;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import yarrowmark.core.measure.Kind;
import yarrowmark.core.measure.Scale;
import yarrowmark.core.stats.Sample;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.ledger.mark.ReadingMarks;
import yarrowmark.server.ledger.mark.ReadingMarks.HeldSample;
import yarrowmark.server.ledger.sample.KnownNoise;
import yarrowmark.server.ledger.sample.NoisePriorCache;
import yarrowmark.server.ledger.sample.SampleCache;
import yarrowmark.server.ledger.sample.Samples.SampleRow;
import yarrowmark.server.ledger.sample.SessionSelection;
import yarrowmark.server.platform.Problem;

/** Which metrics a standing is over, and their samples; what takes no part is said. */
@Component
class PooledSamples {
    /**
     * @param metrics each once, the oldest of those that are compared
     * @param samples under the ids of these
     * @param held    where metrics are ranked alone: of what the display's rate is only the least
     */
    record Pooled(
            List<MetricRow> metrics,
            List<SampleRow> samples,
            KnownNoise noise,
            Set<HeldSample> held,
            Map<Long, Integer> staleTests) {}

    private final Catalog catalog;
    private final SampleCache samples;
    private final NoisePriorCache lent;
    private final ReadingMarks marks;

    PooledSamples(Catalog catalog, SampleCache samples, NoisePriorCache lent, ReadingMarks marks) {
        this.catalog = catalog;
        this.samples = samples;
        this.lent = lent;
        this.marks = marks;
    }

    /** @param leftOut takes what is not in, with the reason */
    Pooled of(StandingsAsk ask, List<Standings.LeftOut> leftOut) {
        List<MetricRow> all = catalog.metricsInUse();
        Set<Long> outdated = catalog.outdatedVersions();
        return pooled(candidates(all, ask, outdated, leftOut), all, outdated, !ask.oneMetric(), ask.taken(), leftOut);
    }

    /** Of each of these metrics by itself: what a display holds stays in, and is named. */
    Pooled each(List<MetricRow> metrics, SessionSelection take) {
        return pooled(metrics, catalog.metricsInUse(), Set.of(), false, take, new ArrayList<>());
    }

    private static List<MetricRow> candidates(
            List<MetricRow> all, StandingsAsk ask, Set<Long> outdated, List<Standings.LeftOut> leftOut) {
        if (ask.metric() != null) {
            MetricRow metric = all.stream()
                    .filter(m -> m.id() == ask.metric())
                    .findFirst()
                    .orElseThrow(() -> Problem.notFound("metric", require(ask.metric())));
            if (metric.kind() == Kind.CHECK || metric.kind() == Kind.CHOICE) {
                throw Problem.invalid(
                        "not-ranked",
                        metric.name()
                                + (metric.kind() == Kind.CHECK
                                        ? " is passed or not; there is nothing to rank by."
                                        : " is one of a list; its steps have no size to rank by."));
            }
            if (metric.scale() != Scale.RATIO && ask.per() != null) {
                throw Problem.invalid(
                        "not-a-ratio",
                        metric.name() + " is compared by differences, and a difference cannot be divided by "
                                + "a quantity. Rank it as measured.");
            }
            return List.of(metric);
        }
        if (ask.suite() != null && all.stream().noneMatch(m -> m.suiteVersionId() == ask.suite())) {
            throw Problem.notFound("suite version", ask.suite());
        }
        if (ask.test() != null && all.stream().noneMatch(m -> m.testId() == ask.test())) {
            throw Problem.notFound("test", ask.test());
        }
        List<MetricRow> scope = all.stream()
                .filter(m -> (ask.group() == null || m.group() == ask.group())
                        && (ask.suite() == null || m.suiteVersionId() == ask.suite())
                        && (ask.test() == null || m.testId() == ask.test())
                        && ask.isAmong(m))
                .toList();
        for (MetricRow m : scope) {
            // How often a curve dents is no test of its own that anybody would miss.
            if (m.scale() != Scale.RATIO && m.series() == null) {
                leftOut.add(new Standings.LeftOut(
                        m.test(), m.suite(), "compared by differences, so it enters no mean of ratios"));
            }
        }
        List<MetricRow> main =
                scope.stream().filter(m -> m.main() && m.scale() == Scale.RATIO).toList();
        main.stream()
                .filter(ask::leavesOut)
                .forEach(m -> leftOut.add(new Standings.LeftOut(m.test(), m.suite(), "left out here")));
        List<MetricRow> parts = main.stream().filter(m -> !ask.leavesOut(m)).toList();
        List<MetricRow> counted = MetricRow.withoutTotals(parts);
        parts.stream()
                .filter(m -> !counted.contains(m))
                .forEach(m -> leftOut.add(new Standings.LeftOut(m.test(), m.suite(), "its parts are weighed already")));
        if (!Boolean.TRUE.equals(ask.fresh())) {
            return counted;
        }
        counted.stream()
                .filter(m -> outdated.contains(m.suiteVersionId()))
                .forEach(m -> leftOut.add(
                        new Standings.LeftOut(m.test(), m.suite(), "a newer version of the suite is in force")));
        return counted.stream()
                .filter(m -> !outdated.contains(m.suiteVersionId()))
                .toList();
    }

    /** Metrics of joined comparability groups are one; in totals without what a display holds. */
    private Pooled pooled(
            List<MetricRow> wanted,
            List<MetricRow> all,
            Set<Long> outdated,
            boolean total,
            SessionSelection take,
            List<Standings.LeftOut> leftOut) {
        Map<Long, Long> oldest = catalog.comparable(all);
        Set<Long> columns = wanted.stream().map(m -> oldest.get(m.id())).collect(Collectors.toSet());
        List<MetricRow> members =
                all.stream().filter(m -> columns.contains(oldest.get(m.id()))).toList();
        Set<Long> stale = members.stream()
                .filter(m -> outdated.contains(m.suiteVersionId()))
                .map(MetricRow::id)
                .collect(Collectors.toSet());
        boolean joined = members.stream().anyMatch(m -> require(oldest, m.id()) != m.id());
        List<MetricRow> metrics =
                all.stream().filter(m -> columns.contains(m.id())).toList();
        Set<HeldSample> limited = marks.held(members);
        Set<HeldSample> held = total ? limited : Set.of();
        Set<HeldSample> heldAlone = total ? Set.of() : limited;
        noteHeld(held, metrics, oldest, leftOut);
        Map<Long, Integer> staleTests = new HashMap<>();
        List<SampleRow> found = new ArrayList<>();
        Map<HeldSample, Sample> pools = new LinkedHashMap<>();
        List<SampleRow> stored =
                samples.ofMetrics(members.stream().map(MetricRow::id).toList(), take);
        if (held.isEmpty() && stale.isEmpty() && !joined) {
            return new Pooled(metrics, stored, lent.of(metrics, all), heldAlone, staleTests);
        }
        for (SampleRow row : stored) {
            if (!held.isEmpty() && held.contains(new HeldSample(row.configurationId(), row.metricId()))) {
                continue;
            }
            if (stale.contains(row.metricId())) {
                staleTests.merge(row.configurationId(), 1, Integer::sum);
            }
            if (joined) {
                pools.merge(
                        new HeldSample(row.configurationId(), require(oldest, row.metricId())),
                        row.sample(),
                        Sample::joined);
            } else {
                found.add(row);
            }
        }
        pools.forEach((place, sample) -> found.add(new SampleRow(place.configurationId(), place.metricId(), sample)));
        return new Pooled(metrics, found, lent.of(metrics, all), heldAlone, staleTests);
    }

    private static void noteHeld(
            Set<HeldSample> held, List<MetricRow> metrics, Map<Long, Long> oldest, List<Standings.LeftOut> leftOut) {
        metrics.forEach(m -> {
            long configurations = held.stream()
                    .filter(h -> require(oldest, h.metricId()) == m.id())
                    .map(HeldSample::configurationId)
                    .distinct()
                    .count();
            if (configurations > 0) {
                leftOut.add(new Standings.LeftOut(
                        m.test(),
                        m.suite(),
                        "held at the display's rate on " + configurations
                                + (configurations == 1 ? " configuration" : " configurations")
                                + ", so it says nothing about them"));
            }
        });
    }
}
