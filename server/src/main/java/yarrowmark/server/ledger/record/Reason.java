package yarrowmark.server.ledger.record;

/** Why a run gave no score. */
public enum Reason {
    NOT_SUPPORTED,
    NEEDS_SECURE_CONNECTION,
    WRONG_ANSWER,
    ERROR,
    OUT_OF_MEMORY,
    TOO_SLOW,
    CONTEXT_LOST,
    NO_SPACE,
    /** The person at the device allowed no more to be written. */
    WRITE_LIMIT,
    HIDDEN,
    RESIZED,
    RELOADED,
    STOPPED_BY_REVIEWER,
    STOPPED_AT_DEVICE,
    OTHER
}
