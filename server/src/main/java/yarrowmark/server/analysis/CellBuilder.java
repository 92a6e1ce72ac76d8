package yarrowmark.server.analysis;

import org.jspecify.annotations.Nullable;
import yarrowmark.core.compare.Bound;
import yarrowmark.core.compare.DifferenceComparison;
import yarrowmark.core.compare.DifferenceText;
import yarrowmark.core.compare.PairComparison;
import yarrowmark.core.compare.RunsNeeded;
import yarrowmark.core.compare.Verdict;
import yarrowmark.core.stats.Sample;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.ledger.record.RunsWithoutScore;

/** Puts a cell of a comparison together: most of what it may hold is absent of most. */
final class CellBuilder {
    private @Nullable Double value;
    private @Nullable Integer runs;
    private @Nullable Integer sessions;
    private @Nullable Double ratio;
    private @Nullable Double difference;
    private @Nullable Double low;
    private @Nullable Double high;
    private @Nullable Verdict verdict;
    private @Nullable Bound bound;
    private DifferenceComparison.@Nullable Reading reading;
    private boolean unmeasured;
    private boolean threeEach;
    private @Nullable String range;
    private @Nullable Double apart;
    private @Nullable Integer runsEach;
    private @Nullable Integer moreRuns;
    private @Nullable Integer sessionsEach;
    private @Nullable Integer moreSessions;
    private boolean moreThanMost;
    private @Nullable Double percent;
    private @Nullable String outReason;
    private @Nullable String size;
    private RunsWithoutScore.@Nullable Ended ended;

    CellBuilder() {}

    CellBuilder measured(double centre, Sample sample) {
        value = centre;
        runs = sample.n();
        sessions = sample.sessions().size();
        return this;
    }

    CellBuilder ratio(PairComparison pair, MetricRow metric) {
        ratio = pair.ratio();
        size = DifferenceText.brief(pair.ratio(), metric.direction(), metric.whatIsLess());
        range = DifferenceText.range(pair.interval(), metric.direction(), metric.whatIsLess());
        if (value != null) {
            apart = pair.apart(value, metric.direction());
        }
        verdict = pair.verdict();
        unmeasured = pair.unmeasured();
        low = pair.interval().low();
        high = pair.interval().high();
        return advice(pair.runsNeeded());
    }

    CellBuilder bound(Bound held, double ratioOfHeld) {
        bound = held;
        ratio = ratioOfHeld;
        return this;
    }

    CellBuilder difference(double apart, DifferenceComparison.Reading reads) {
        difference = apart;
        reading = reads;
        return this;
    }

    CellBuilder interval(double lower, double upper) {
        low = lower;
        high = upper;
        return this;
    }

    private CellBuilder advice(RunsNeeded needed) {
        if (needed instanceof RunsNeeded.Runs more) {
            runsEach = more.runsEachSide();
            moreRuns = more.more();
        } else if (needed instanceof RunsNeeded.Sessions days) {
            sessionsEach = days.sessionsEachSide();
            moreSessions = days.more();
        }
        threeEach = needed instanceof RunsNeeded.ThreeEach;
        moreThanMost = needed instanceof RunsNeeded.MoreThanMost;
        return this;
    }

    CellBuilder out(@Nullable String reason) {
        outReason = reason;
        return this;
    }

    /** @param added what it adds to the overall, in which it counts */
    CellBuilder counting(double added) {
        percent = added;
        outReason = null;
        return this;
    }

    CellBuilder ended(RunsWithoutScore.@Nullable Ended how) {
        ended = how;
        return this;
    }

    Comparison.ComparedCell build() {
        return new Comparison.ComparedCell(
                value,
                runs,
                sessions,
                ratio,
                difference,
                low,
                high,
                verdict,
                bound,
                reading,
                unmeasured,
                runsEach,
                moreRuns,
                sessionsEach,
                moreSessions,
                threeEach,
                moreThanMost,
                percent,
                outReason,
                size,
                range,
                apart,
                ended);
    }
}
