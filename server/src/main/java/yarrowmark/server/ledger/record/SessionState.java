package yarrowmark.server.ledger.record;

/** OPEN takes runs; DONE has all that was planned; STOPPED ended before that. */
public enum SessionState {
    OPEN,
    DONE,
    STOPPED
}
