package yarrowmark.core.compare;

/** How a comparison reads in words, from the side of the first sample. */
public enum Verdict {
    CLEAR_GAIN("clear gain"),
    CLEAR_LOSS("clear loss"),
    LEVEL("level"),
    SMALL_GAIN("clear gain, small"),
    SMALL_LOSS("clear loss, small"),
    /** A gain by a spread that is only usual, and that nobody measured here. */
    PROBABLY_GAIN("probably a gain"),
    PROBABLY_LOSS("probably a loss"),
    PROBABLY_LEVEL("probably level"),
    CANNOT_TELL("too close to call");

    private final String words;

    Verdict(String words) {
        this.words = words;
    }

    /**
     * Section 3's table, in its order.
     *
     * @param half  half-width of the 95 % interval around δ
     * @param limit L, above 0
     */
    public static Verdict of(double delta, double half, double limit) {
        boolean apart = Math.abs(delta) > half;
        if (apart && delta >= limit) {
            return CLEAR_GAIN;
        }
        if (apart && delta <= -limit) {
            return CLEAR_LOSS;
        }
        if (delta - half > -limit && delta + half < limit) {
            return LEVEL;
        }
        if (apart) {
            return delta > 0 ? SMALL_GAIN : SMALL_LOSS;
        }
        return CANNOT_TELL;
    }

    /** What is left of it where it rests on a spread that nobody measured here. */
    public Verdict ifUnmeasured(boolean unmeasured) {
        return !unmeasured
                ? this
                : switch (this) {
                    case CLEAR_GAIN, SMALL_GAIN -> PROBABLY_GAIN;
                    case CLEAR_LOSS, SMALL_LOSS -> PROBABLY_LOSS;
                    case LEVEL -> PROBABLY_LEVEL;
                    default -> this;
                };
    }

    public String words() {
        return words;
    }

    /** Whether two are told apart for sure, and by as much as matters. */
    public boolean isClear() {
        return this == CLEAR_GAIN || this == CLEAR_LOSS;
    }

    /** The verdict with the two samples exchanged. */
    public Verdict swapped() {
        return switch (this) {
            case CLEAR_GAIN -> CLEAR_LOSS;
            case CLEAR_LOSS -> CLEAR_GAIN;
            case SMALL_GAIN -> SMALL_LOSS;
            case SMALL_LOSS -> SMALL_GAIN;
            case PROBABLY_GAIN -> PROBABLY_LOSS;
            case PROBABLY_LOSS -> PROBABLY_GAIN;
            case LEVEL, PROBABLY_LEVEL, CANNOT_TELL -> this;
        };
    }
}
