/** Reading facts out of what a system's own tools print. The rules are data: one file for each tool. */
@NullMarked
package yarrowmark.core.capture;

import org.jspecify.annotations.NullMarked;
