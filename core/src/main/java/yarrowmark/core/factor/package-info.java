/** What two changes do by themselves and together. Section 8 of the method. */
@NullMarked
package yarrowmark.core.factor;

import org.jspecify.annotations.NullMarked;
