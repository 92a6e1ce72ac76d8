/** What sensors say during a run, and what that comes to. */
@NullMarked
package yarrowmark.core.sensor;

import org.jspecify.annotations.NullMarked;
