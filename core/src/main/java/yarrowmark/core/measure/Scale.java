package yarrowmark.core.measure;

/** How two readings of a metric may be compared. */
public enum Scale {
    /** Strictly positive values with a true zero: rates, times, sizes, scores. Compared by ratios. */
    RATIO,
    /** Values without a true zero, or that may be 0 (°C, dBm, counts). Compared by differences only. */
    DIFFERENCE
}
