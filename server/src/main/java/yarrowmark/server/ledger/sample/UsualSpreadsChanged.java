package yarrowmark.server.ledger.sample;

import yarrowmark.server.platform.change.RecordsChanged;

/** The lab changed how far results of a group of tests usually differ. */
public record UsualSpreadsChanged() implements RecordsChanged {}
