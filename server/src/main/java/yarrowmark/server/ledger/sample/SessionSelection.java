package yarrowmark.server.ledger.sample;

/** Which sessions are taken: under another condition a configuration is measured as if it were another. */
public enum SessionSelection {
    /** Those that count by default: without the conditions on the lab's list. */
    USUAL("in usual sessions"),
    ALL("in every session"),
    RECORDED("while the screen was recorded"),
    ON_BATTERY("on battery"),
    OTHER_WORK("with other work going on"),
    /** Stopped, or left off for a day, before each of its tests had a run. */
    UNFINISHED("in sessions that were never finished");

    private final String words;

    SessionSelection(String words) {
        this.words = words;
    }

    public String words() {
        return words;
    }

    /** Whether it is a condition that a session may have. */
    public boolean isCondition() {
        return this != USUAL && this != ALL;
    }
}
