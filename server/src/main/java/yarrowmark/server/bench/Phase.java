package yarrowmark.server.bench;

/** What a seat is doing. */
public enum Phase {
    /** The code waits for a device. */
    WAITING,
    /** A device has joined and is being set up. */
    JOINED,
    RUNNING,
    /** Between two runs. */
    COOLING,
    PAUSED,
    /** The reviewer carries out a test and types its scores. */
    BY_HAND,
    /** Somebody waits until a temperature is reached, and says so. */
    COOL_UNTIL,
    /** The device's page is hidden or its screen asleep; it goes on when it is back. */
    HIDDEN,
    DONE,
    STOPPED,
    /** Taken off the bench's list; its session stays in the ledger. */
    CLEARED;

    boolean isOver() {
        return this == DONE || this == STOPPED || this == CLEARED;
    }
}
