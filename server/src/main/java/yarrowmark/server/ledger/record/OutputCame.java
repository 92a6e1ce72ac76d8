package yarrowmark.server.ledger.record;

/** A run came with what its command printed; told inside the transaction to whoever keeps what proves a score. */
public record OutputCame(long sessionId, long runId, int runNumber, String output) {}
