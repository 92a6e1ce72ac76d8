package yarrowmark.server.ledger.record;

/** A run was stored; told after the transaction to whoever waits for it. */
public record RunStored(long sessionId, long testId) {}
