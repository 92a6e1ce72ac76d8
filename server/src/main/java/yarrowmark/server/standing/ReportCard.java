package yarrowmark.server.standing;

import java.util.List;
import org.jspecify.annotations.Nullable;
import yarrowmark.core.standing.Rating;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.ledger.record.RunsWithoutScore;
import yarrowmark.server.shelf.configuration.ConfigurationRow;

/**
 * One configuration among others, test by test.
 *
 * @param among      how many others it is held against
 * @param purpose    whose weights the place over all has
 * @param scope      what that place is over, in words; absent where there is none
 * @param place      over all; absent where it has none
 * @param noPlace    why not
 * @param forerunner of the model that its own follows: the newest that has scores
 * @param rows       tests it ran, in the catalogue's order
 * @param best       positions in the rows, the best first
 * @param worst      positions in the rows, the worst first
 */
record ReportCard(
        ConfigurationRow configuration,
        int among,
        @Nullable String purpose,
        @Nullable String scope,
        @Nullable CardPlace place,
        @Nullable String noPlace,
        @Nullable ConfigurationRow forerunner,
        List<CardRow> rows,
        List<Integer> best,
        List<Integer> worst) {

    /**
     * @param order      1 + the number with a better one
     * @param best       1 + the number clearly above
     * @param worst      the number placed less those clearly below
     * @param of         how many are placed
     * @param percentile share of the others that it beats, 0 to 1; from six placed on
     */
    record CardPlace(int order, int best, int worst, int of, @Nullable Double percentile) {}

    /**
     * One test.
     *
     * @param value      centre of its readings, in the metric's unit; absent where the run gave none
     * @param atLeast    whether a display holds the value, so that it is only the least
     * @param unmeasured whether its noise rests on a stated or usual spread
     * @param place      among those that ran it; absent where nobody else did, or there is nothing to rank by
     * @param rating     by the lab's limits, else by thirds, from six placed on
     * @param others     merits of the others less its own, above 0 is better: all of them, or an even choice where they are many
     * @param ended      where it has no value: how its latest run ended
     */
    record CardRow(
            MetricRow metric,
            @Nullable Double value,
            boolean atLeast,
            int runs,
            boolean unmeasured,
            @Nullable CardPlace place,
            @Nullable Rating rating,
            List<Double> others,
            RunsWithoutScore.@Nullable Ended ended) {}
}
