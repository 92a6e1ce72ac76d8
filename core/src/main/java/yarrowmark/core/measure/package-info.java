/** What a reading is: its direction, its scale, how exactly it is known, and its merit. Section 1 of the method. */
@NullMarked
package yarrowmark.core.measure;

import org.jspecify.annotations.NullMarked;
