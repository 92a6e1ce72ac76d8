/** The bench: codes, seats for devices, what a device sends, and live progress for the reviewer. */
@NullMarked
package yarrowmark.server.bench;

import org.jspecify.annotations.NullMarked;
