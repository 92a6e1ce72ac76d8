/** The ledger as a file, out and in. */
@NullMarked
package yarrowmark.server.ledger.exchange;

import org.jspecify.annotations.NullMarked;
