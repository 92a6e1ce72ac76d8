package yarrowmark.core.compare;

import yarrowmark.core.stats.Centre;
import yarrowmark.core.stats.Noise;
import yarrowmark.core.stats.Sample;
import yarrowmark.core.stats.SessionNoise;

/**
 * How far the centres of two samples are apart, and how well that is known: the same for ratios, on merits, and for
 * differences, in the metric's unit.
 *
 * @param variance         of the difference
 * @param degreesOfFreedom Welch-Satterthwaite over the runs of both and their sessions, at least 1
 */
record Gap(
        double difference,
        PairComparison.Parts parts,
        double variance,
        double degreesOfFreedom,
        boolean assumed,
        boolean withinOneSession) {

    static Gap between(Sample a, Sample base, Noise noise) {
        Centre ca = Centre.of(a, noise);
        Centre cb = Centre.of(base, noise);
        double runs = ca.runVariance() + cb.runVariance();
        double byDegree = square(ca.runVariance()) / ca.runDegrees() + square(cb.runVariance()) / cb.runDegrees();
        double sessions = ca.sessionVariance() + cb.sessionVariance();
        double terms = byDegree;
        if (sessions > 0) {
            SessionNoise days = noise.days().orElseThrow();
            double squares = ca.sessionSquares() + cb.sessionSquares();
            terms += square(squares * (days.variance() + days.subtracted())) / days.degreesOfFreedom();
        }
        double variance = runs + sessions;
        return new Gap(
                ca.merit() - cb.merit(),
                new PairComparison.Parts(runs, byDegree, sessions),
                variance,
                Math.max(1, terms == 0 ? ca.runDegrees() + cb.runDegrees() : variance * variance / terms),
                ca.assumed() || cb.assumed(),
                ca.withinOneSession());
    }

    static double square(double x) {
        return x * x;
    }
}
