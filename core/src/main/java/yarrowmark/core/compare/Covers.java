package yarrowmark.core.compare;

/** Which noise an interval knows. */
public enum Covers {
    /** Nothing that it rests on was measured in a second session: another day may be another matter. */
    WITHIN_ONE_SESSION("within one session"),
    /** Of some tests only, a second session is known. */
    PARTLY("day to day included for some of the tests"),
    DAY_TO_DAY("day to day included");

    private final String words;

    Covers(String words) {
        this.words = words;
    }

    /** @param oneSession how many of all know no second session */
    public static Covers of(int oneSession, int all) {
        return oneSession == 0 ? DAY_TO_DAY : oneSession == all ? WITHIN_ONE_SESSION : PARTLY;
    }

    public String words() {
        return words;
    }
}
