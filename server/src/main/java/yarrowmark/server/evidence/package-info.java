/** Photos, logs and other files that stay with a session or one of its runs. */
@NullMarked
package yarrowmark.server.evidence;

import org.jspecify.annotations.NullMarked;
