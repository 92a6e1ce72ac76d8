package yarrowmark.core.standing;

/** A result in one word: by limits somebody set, else by the third of those placed that it is in. */
public enum Rating {
    GOOD,
    AVERAGE,
    POOR;

    public static Rating of(Standing.Third third) {
        return switch (third) {
            case UPPER -> GOOD;
            case MIDDLE -> AVERAGE;
            case LOWER -> POOR;
        };
    }
}
