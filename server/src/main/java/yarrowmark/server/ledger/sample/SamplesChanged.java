package yarrowmark.server.ledger.sample;

import java.util.Set;
import yarrowmark.server.platform.change.RecordsChanged;

/** Samples of a configuration, of metrics of these suite versions, are others now. */
record SamplesChanged(long configurationId, Set<Long> suiteVersions) implements RecordsChanged {}
