/** A device along its versions, quantities and dates. */
@NullMarked
package yarrowmark.server.trend;

import org.jspecify.annotations.NullMarked;
