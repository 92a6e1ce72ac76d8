/** What every feature stands on: problems, limits, the clock, the API document, and the pages' delivery. */
@NullMarked
package yarrowmark.server.platform;

import org.jspecify.annotations.NullMarked;
