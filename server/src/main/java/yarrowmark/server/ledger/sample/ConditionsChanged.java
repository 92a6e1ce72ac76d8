package yarrowmark.server.ledger.sample;

import yarrowmark.server.platform.change.RecordsChanged;

/** A session with conditions was opened or moved, or the lab's list of those that do not count is another. */
public record ConditionsChanged() implements RecordsChanged {}
