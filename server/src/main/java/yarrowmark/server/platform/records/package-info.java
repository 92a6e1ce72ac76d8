/** The database: its pool and updates, locks, and trying again. */
@NullMarked
package yarrowmark.server.platform.records;

import org.jspecify.annotations.NullMarked;
