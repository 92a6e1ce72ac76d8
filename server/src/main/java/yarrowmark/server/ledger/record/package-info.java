/** Sessions, their runs and readings, and setting aside: what is stored once and never changed. */
@NullMarked
package yarrowmark.server.ledger.record;

import org.jspecify.annotations.NullMarked;
