/** Why a reading may not be sound, and what a reviewer decided about it. */
@NullMarked
package yarrowmark.server.ledger.mark;

import org.jspecify.annotations.NullMarked;
