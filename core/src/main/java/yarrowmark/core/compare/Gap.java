package yarrowmark.core.compare;

import yarrowmark.core.stats.Centre;
import yarrowmark.core.stats.Noise;
import yarrowmark.core.stats.Sample;

/**
 * How far the centres of two samples are apart, and how well that is known: the same for ratios, on merits, and for
 * differences, in the metric's unit.
 *
 * @param variance         of the difference
 * @param degreesOfFreedom Welch-Satterthwaite over the runs of both and their sessions, at least 1
 * @param known            whether anything says how noisy both sides are
 */
record Gap(
        double difference,
        PairComparison.Parts parts,
        double variance,
        double degreesOfFreedom,
        boolean known,
        boolean unmeasured) {

    static Gap between(Sample a, Sample base, Noise noise) {
        Centre ca = Centre.of(a, noise);
        Centre cb = Centre.of(base, noise);
        return new Gap(
                ca.merit() - cb.merit(),
                PairComparison.Parts.of(ca, cb),
                ca.variance() + cb.variance(),
                ca.degreesWith(cb),
                !ca.isAnywhere() && !cb.isAnywhere(),
                ca.unmeasured() || cb.unmeasured());
    }

    static double square(double x) {
        return x * x;
    }
}
