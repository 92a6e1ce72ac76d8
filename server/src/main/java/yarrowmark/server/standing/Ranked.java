package yarrowmark.server.standing;

import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import yarrowmark.core.measure.Scale;
import yarrowmark.core.standing.MeritGrid;
import yarrowmark.core.standing.Reference;
import yarrowmark.core.standing.Standing;
import yarrowmark.core.stats.Centre;
import yarrowmark.core.stats.Sample;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.platform.Problem;

/**
 * A standing with what it was made from, for everything that is asked about it.
 *
 * @param purpose    by its name, or the words for one that is being edited
 * @param metrics    columns of the grid, each with weight
 * @param weights    of them, summing to 1
 * @param rows       configurations, as the grid has them
 * @param grid       merits; divided, where scores are
 * @param samples    where they came from, before any dividing
 * @param base       configuration with index 100; null for the typical one
 * @param staleTests by configuration, how many of its samples are of a suite version that a newer one took the place of
 * @param held       where one metric alone is ranked: configurations whose display holds it, so that the value is the least
 * @param common     whether only the tests in common use are ranked, and there are others
 * @param offers     narrower questions with which more would have a place
 * @param leftOut    metrics that take no part, and why
 */
record Ranked(
        StandingsAsk ask,
        String purpose,
        List<MetricRow> metrics,
        double[] weights,
        List<Long> rows,
        MeritGrid grid,
        StandingGrid samples,
        Reference reference,
        @Nullable Long base,
        @Nullable String baseNote,
        Standing standing,
        StandingFilter.Chosen chosen,
        Map<Long, Integer> staleTests,
        Set<Long> held,
        boolean common,
        List<Standings.Offer> offers,
        List<Standings.LeftOut> leftOut) {

    /** −1 where it is not ranked. */
    int row(long configurationId) {
        return samples.row(configurationId);
    }

    @Nullable
    Sample sample(int row, MetricRow metric) {
        return samples.sample(row, metric.id());
    }

    @Nullable
    Centre centre(int row, MetricRow metric) {
        return samples.centre(row, metric.id());
    }

    /** Whether one metric alone is ranked that is compared by differences: it has no index. */
    boolean byDifferences() {
        return ask.oneMetric() && metrics.get(0).scale() == Scale.DIFFERENCE;
    }

    /** @throws Problem where this is asked of a standing by differences, which has no ratios */
    void needsRatios(String what) {
        if (byDifferences()) {
            throw Problem.invalid(
                    "not-a-ratio",
                    metrics.get(0).name() + " is compared by differences, and " + what + " are told in ratios.");
        }
    }

    /** A part of the whole, each with the columns that belong to it: groups where there are several, else suites, else tests. */
    List<PartOf> parts() {
        return PartOf.of(metrics, weights);
    }
}
