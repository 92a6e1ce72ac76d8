package yarrowmark.server.ledger.line;

/** What a ledger line can be filtered by. */
public enum LedgerState {
    COUNTED("rd.id is not null and a.id is null"),
    SET_ASIDE("a.id is not null"),
    FAILED("r.state = FAILED"),
    COULD_NOT_RUN("r.state = COULD_NOT_RUN"),
    STOPPED("r.state = STOPPED");

    private final String condition;

    LedgerState(String condition) {
        this.condition = condition;
    }

    /** Whether it is said of readings rather than of runs that gave none. */
    boolean isOfReadings() {
        return this == COUNTED || this == SET_ASIDE;
    }

    String condition() {
        return condition;
    }
}
