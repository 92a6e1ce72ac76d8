/** Is one sample better than another, by how much, and is that real. Section 3 of the method. */
@NullMarked
package yarrowmark.core.compare;

import org.jspecify.annotations.NullMarked;
