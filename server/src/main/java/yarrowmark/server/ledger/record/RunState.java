package yarrowmark.server.ledger.record;

/** How one attempt at a test ended. Everything but OK has a reason. */
public enum RunState {
    OK,
    FAILED,
    COULD_NOT_RUN,
    STOPPED
}
