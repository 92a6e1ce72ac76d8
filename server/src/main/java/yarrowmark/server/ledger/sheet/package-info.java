/** Scores as a person types them into a session. */
@NullMarked
package yarrowmark.server.ledger.sheet;

import org.jspecify.annotations.NullMarked;
