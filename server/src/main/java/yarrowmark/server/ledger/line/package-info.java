/** The ledger as it is looked at: its filters, lines, pages and saved views, and what is done to a whole view. */
@NullMarked
package yarrowmark.server.ledger.line;

import org.jspecify.annotations.NullMarked;
