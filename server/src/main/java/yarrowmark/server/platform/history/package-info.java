/** Who changed what, and taking it back. */
@NullMarked
package yarrowmark.server.platform.history;

import org.jspecify.annotations.NullMarked;
