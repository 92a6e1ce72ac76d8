package yarrowmark.core.compare;

/** How a comparison reads in words, from the side of the first sample. */
public enum Verdict {
    CLEAR_GAIN("clear gain"),
    CLEAR_LOSS("clear loss"),
    LEVEL("level"),
    SMALL_GAIN("small gain"),
    SMALL_LOSS("small loss"),
    CANNOT_TELL("cannot tell");

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
        return of(delta, half, limit, limit);
    }

    /** @param clear from where a difference is called clear, L or more. @param limit L */
    static Verdict of(double delta, double half, double clear, double limit) {
        boolean apart = Math.abs(delta) > half;
        if (apart && delta >= clear) {
            return CLEAR_GAIN;
        }
        if (apart && delta <= -clear) {
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

    public String words() {
        return words;
    }

    /** The verdict with the two samples exchanged. */
    public Verdict swapped() {
        return switch (this) {
            case CLEAR_GAIN -> CLEAR_LOSS;
            case CLEAR_LOSS -> CLEAR_GAIN;
            case SMALL_GAIN -> SMALL_LOSS;
            case SMALL_LOSS -> SMALL_GAIN;
            case LEVEL, CANNOT_TELL -> this;
        };
    }
}
