/** The same device along versions, quantities or dates: which way it goes, where it jumped, and how sure that is. */
@NullMarked
package yarrowmark.core.trend;

import org.jspecify.annotations.NullMarked;
