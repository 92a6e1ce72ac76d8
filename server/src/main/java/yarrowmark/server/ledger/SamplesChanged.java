package yarrowmark.server.ledger;

import java.util.Set;

/** Samples of metrics of these suite versions are others now. */
record SamplesChanged(Set<Long> suiteVersions) { }
