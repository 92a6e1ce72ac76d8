package yarrowmark.server.ledger;

/** A run was stored; told after the transaction to whoever waits for it. */
public record RunStored(long sessionId, long testId) {}
