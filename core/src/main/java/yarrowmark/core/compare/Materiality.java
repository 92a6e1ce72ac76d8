package yarrowmark.core.compare;

/**
 * The smallest ratio difference that matters, and L = ln(1 + m), the same on the scale of merits.
 *
 * @param share m, above 0: 0.03 stands for 3 %
 */
public record Materiality(double share) {
    /** What matters unless the metric or the purpose says otherwise. */
    public static final Materiality USUAL = new Materiality(0.03);

    public Materiality {
        if (!(share > 0 && share <= 10)) {
            throw new IllegalArgumentException("materiality must be above 0 and at most 10 (1000 %), not " + share);
        }
    }

    /** L = ln(1 + m). */
    public double onMerits() {
        return Math.log1p(share);
    }
}
