/**
 * What was measured. Rooms: record and sample hold it; mark, line, sheet and exchange look at it and bring it in. Which may
 * use which is in ArchitectureTest.
 */
@NullMarked
package yarrowmark.server.ledger;

import org.jspecify.annotations.NullMarked;
