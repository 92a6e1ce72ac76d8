package yarrowmark.core.measure;

/** What a reading of a metric looks like. Each has one number that samples are made of, whatever else it holds. */
public enum Kind {
    NUMBER,
    /** A length of time, which people also write as 4:07. */
    DURATION,
    PERCENTAGE,
    /** Passed or not: 1 or 0. */
    CHECK,
    /** One of an ordered list, from worst to best: its position, from 1. */
    CHOICE,
    /** Values over x; the number is their peak. */
    CURVE,
    /** Times of frames in ms; the number is the mean rate. */
    FRAME_TIMES;

    /** Whether a reading holds many points besides its number. */
    public boolean isSeries() {
        return this == CURVE || this == FRAME_TIMES;
    }
}
