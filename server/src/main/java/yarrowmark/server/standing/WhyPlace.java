package yarrowmark.server.standing;

import static yarrowmark.server.platform.Require.require;

import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.core.compare.PairComparison;
import yarrowmark.core.plan.PlanEstimate;
import yarrowmark.core.plan.PlanTime;
import yarrowmark.core.standing.PlaceReasons;
import yarrowmark.core.standing.Ranking;
import yarrowmark.core.standing.Reference;
import yarrowmark.core.standing.Standing;
import yarrowmark.core.stats.Centre;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.catalog.TestRow;
import yarrowmark.server.ledger.record.RunDurations;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.shelf.configuration.ConfigurationRow;

/** Why a configuration stands where it does, what is missing for full coverage, and how long that would take. */
@Service
class WhyPlace {
    private static final int RUNS = 3;
    private static final int TIMED_MS = 3_000;
    private static final int PAUSE_MS = 5_000;

    /**
     * @param percent  what the tests add to the difference of the index to 100; all of them add up to it
     * @param missing  what it has no result for
     * @param wholeMs  how long carrying that out takes, three runs each, in ms
     * @param guessed  of how many of them the time is a guess
     */
    record Why(
            ConfigurationRow configuration,
            @Nullable ConfigurationRow base,
            double index,
            List<PartSum> parts,
            List<TestReason> tests,
            List<MissingTest> missing,
            long wholeMs,
            int guessed) {}

    /**
     * @param key   what leaves the part out of a standing
     * @param ratio of the part by itself, to the base or to what is typical, with its 95 % interval; absent where one of the two has nothing in it
     */
    record PartSum(
            String key,
            String name,
            double weight,
            double percent,
            int tests,
            @Nullable Double ratio,
            @Nullable Double low,
            @Nullable Double high) {}

    /**
     * @param percent absent where neither it nor the base has a result
     * @param ratio   to the base, or to what is typical of the test; absent without a result of both
     * @param third   where it is surely in one, of those that are placed
     */
    record TestReason(
            long metricId,
            long testId,
            String test,
            String suite,
            String part,
            double weight,
            @Nullable Double percent,
            @Nullable Double ratio,
            Standing.@Nullable Third third) {}

    record MissingTest(long testId, String test, String suite, double weight) {}

    private final StandingsService standings;
    private final Catalog catalog;
    private final RunDurations durations;

    WhyPlace(StandingsService standings, Catalog catalog, RunDurations durations) {
        this.standings = standings;
        this.catalog = catalog;
        this.durations = durations;
    }

    @Transactional(readOnly = true)
    public Why of(StandingsAsk ask, long configurationId) {
        Ranked ranked = standings.ranked(ask);
        ranked.needsRatios("the reasons of a place");
        int row = ranked.row(configurationId);
        if (row < 0) {
            throw Problem.notFound("configuration in this standing with the number", configurationId);
        }
        ConfigurationRow configuration =
                require(ranked.chosen().members(), configurationId).configuration();
        List<PlaceReasons.Reason> reasons = PlaceReasons.of(ranked.grid(), ranked.weights(), ranked.reference(), row);
        if (reasons.isEmpty()) {
            throw Problem.invalid(
                    "not-linked",
                    configuration.maker() + " " + configuration.model()
                            + " shares no chain of tests with the base, so there is nothing to say about how the two stand. Run a test on it that the others have.");
        }
        double merit = reasons.stream()
                .filter(r -> r.contribution().isPresent())
                .mapToDouble(r -> r.contribution().getAsDouble())
                .sum();
        // Shares of the index's difference, so that they add up to what is read; of the logarithm where there is no
        // difference.
        double scale = Math.abs(merit) < 1e-12 ? 100 : 100 * Math.expm1(merit) / merit;
        Map<Integer, String> partOf = new LinkedHashMap<>();
        ranked.parts().forEach(p -> java.util.Arrays.stream(p.columns()).forEach(j -> partOf.put(j, p.name())));
        List<TestReason> tests = new ArrayList<>();
        for (PlaceReasons.Reason r : reasons) {
            MetricRow m = ranked.metrics().get(r.column());
            tests.add(new TestReason(
                    m.id(),
                    m.testId(),
                    m.test(),
                    m.suite(),
                    require(partOf, r.column()),
                    r.weight(),
                    r.contribution().isPresent() ? scale * r.contribution().getAsDouble() : null,
                    ratio(ranked, row, m, r),
                    r.third().orElse(null)));
        }
        List<PartSum> parts = ranked.parts().stream()
                .map(p -> partSum(
                        ranked,
                        row,
                        p,
                        tests.stream()
                                .filter(t -> t.part().equals(p.name()) && t.percent() != null)
                                .mapToDouble(TestReason::percent)
                                .sum()))
                .toList();
        List<MissingTest> missing = new ArrayList<>();
        tests.stream()
                .filter(t -> ranked.samples().sample(row, t.metricId()) == null)
                .forEach(t -> missing.add(new MissingTest(
                        ranked.metrics().stream()
                                .filter(m -> m.id() == t.metricId())
                                .findFirst()
                                .orElseThrow()
                                .testId(),
                        t.test(),
                        t.suite(),
                        t.weight())));
        PlanEstimate time =
                time(missing.stream().map(MissingTest::testId).distinct().toList(), configuration);
        return new Why(
                configuration,
                ranked.base() == null
                        ? null
                        : require(ranked.chosen().members(), ranked.base()).configuration(),
                100 * Math.exp(merit),
                parts,
                tests,
                missing,
                time.wholeMs(),
                time.guessed());
    }

    private static PartSum partSum(Ranked ranked, int row, PartOf part, double percent) {
        double[] weights = java.util.Arrays.stream(part.columns())
                .mapToDouble(j -> ranked.weights()[j])
                .toArray();
        MetricRow any = ranked.metrics().get(part.columns()[0]);
        boolean based = ranked.reference() instanceof Reference.Typical
                || java.util.Arrays.stream(part.columns())
                        .anyMatch(j -> ranked.sample(
                                        ranked.row(require(ranked.base())),
                                        ranked.metrics().get(j))
                                != null);
        PairComparison.Interval interval = null;
        Double ratio = null;
        if (based) {
            Standing.Entry own =
                    Ranking.of(ranked.grid().columns(part.columns()), weights, ranked.reference()).entries().stream()
                            .filter(e -> e.row() == row)
                            .findFirst()
                            .orElseThrow();
            interval = own.interval().orElse(null);
            ratio = own.merit().isPresent() ? Math.exp(own.merit().getAsDouble()) : null;
        }
        return new PartSum(
                any.partKeys().get(part.kind().ordinal()),
                part.name(),
                part.weight(),
                percent,
                part.columns().length,
                ratio,
                interval == null ? null : interval.low(),
                interval == null ? null : interval.high());
    }

    private static @Nullable Double ratio(Ranked ranked, int row, MetricRow metric, PlaceReasons.Reason reason) {
        if (ranked.reference() instanceof Reference.Typical) {
            return reason.merit().isPresent() ? Math.exp(reason.merit().getAsDouble()) : null;
        }
        Centre own = ranked.centre(row, metric);
        Centre base = ranked.centre(ranked.row(require(ranked.base())), metric);
        if (own == null || base == null) {
            return null;
        }
        Map<Long, Double> quantity = ranked.chosen().quantity();
        double divided = quantity.isEmpty()
                ? 0
                : Math.log(require(quantity, ranked.base())
                        / require(quantity, ranked.rows().get(row)));
        return Math.exp(own.merit() - base.merit() + divided);
    }

    private PlanEstimate time(List<Long> testIds, ConfigurationRow configuration) {
        Map<Long, TestRow> tests = catalog.tests(testIds).stream().collect(Collectors.toMap(TestRow::id, t -> t));
        Map<Long, RunDurations.Known> known = durations.of(testIds, configuration.deviceClass());
        return PlanEstimate.of(testIds.stream()
                .map(id -> {
                    RunDurations.Known k = known.get(id);
                    double ms = k != null
                            ? k.ms()
                            : PlanTime.guessedRunMs(require(tests, id).builtIn(), Duration.ofMillis(TIMED_MS));
                    return new PlanEstimate.Item(RUNS, ms, PAUSE_MS, true, k == null);
                })
                .toList());
    }
}
