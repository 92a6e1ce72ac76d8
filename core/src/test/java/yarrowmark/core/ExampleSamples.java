package yarrowmark.core;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import yarrowmark.core.compare.DifferenceComparison;
import yarrowmark.core.compare.Materiality;
import yarrowmark.core.compare.PairComparison;
import yarrowmark.core.measure.Direction;
import yarrowmark.core.measure.Measured;
import yarrowmark.core.measure.Scale;
import yarrowmark.core.stats.Noise;
import yarrowmark.core.stats.NoisePrior;
import yarrowmark.core.stats.Sample;
import yarrowmark.core.stats.SampleMoments;

/** The samples of the method's examples. Expected values in the tests were computed in R 4.2.2. */
public final class ExampleSamples {
    public static final List<SampleMoments> A = List.of(
            more(388.1, 391.7, 386.9),
            more(402.4, 405.9, 403.3),
            more(512.0, 498.6, 505.1),
            more(610.8, 612.2, 607.5, 609.9),
            more(291.3, 290.1));

    public static final List<SampleMoments> A2 = List.of(
            more(100.2, 101.1, 99.5),
            more(88.0, 95.1, 91.2, 84.9),
            more(120.3, 120.9, 119.8),
            more(150, 151.5, 163, 149),
            more(75.1, 75.0, 75.3),
            more(60.2, 64.8, 62.9),
            more(45.2, 45.3, 45.0),
            more(210, 214, 206, 211, 216));

    /** The method's example F: sessions of each configuration in brackets. */
    public static final List<Sample> F = List.of(
            sessions(new double[][] {{388.1, 391.7, 386.9}, {381.0, 383.5, 380.2}}),
            sessions(new double[][] {{402.4, 405.9, 403.3}}),
            sessions(new double[][] {{512.0, 498.6, 505.1}, {509.9, 514.2, 511.0}, {500.3, 503.8, 498.9}}),
            sessions(new double[][] {{610.8, 612.2, 607.5, 609.9}}),
            sessions(new double[][] {{291.3, 290.1}, {295.9, 296.4, 294.8}}),
            sessions(new double[][] {{297.0}}));

    private ExampleSamples() {}

    /** More is better; sessions are numbered from 1. */
    public static Sample sessions(double[][] readings) {
        return Sample.of(IntStream.range(0, readings.length)
                .mapToObj(i -> new Sample.OfSession(i + 1, more(readings[i])))
                .toList());
    }

    /** Everything in one session. */
    public static Sample one(SampleMoments moments) {
        return Sample.ofOneSession(1, moments);
    }

    /** The same for a difference metric, with nothing lent. */
    public static DifferenceComparison apart(SampleMoments a, SampleMoments base) {
        return DifferenceComparison.of(one(a), one(base), Noise.UNKNOWN);
    }

    /** Two samples of one session each, where no second session of anything is known. */
    public static PairComparison pair(
            SampleMoments a, SampleMoments base, Optional<NoisePrior> lent, Materiality materiality) {
        return PairComparison.of(one(a), one(base), Noise.ofRuns(lent), materiality);
    }

    public static SampleMoments more(double... values) {
        return sample(Direction.MORE_IS_BETTER, 0, values);
    }

    /** A difference metric: less is better, in °C. */
    public static SampleMoments degrees(double... values) {
        return SampleMoments.of(
                Arrays.stream(values).mapToObj(v -> new Measured(v, 0)).toList(),
                Direction.LESS_IS_BETTER,
                Scale.DIFFERENCE);
    }

    public static SampleMoments sample(Direction direction, double resolution, double... values) {
        return SampleMoments.of(
                Arrays.stream(values).mapToObj(v -> new Measured(v, resolution)).toList(), direction, Scale.RATIO);
    }
}
