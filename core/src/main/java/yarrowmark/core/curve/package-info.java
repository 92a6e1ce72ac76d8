/** Readings of many points: curves over x, and times of frames. Section 9. */
@NullMarked
package yarrowmark.core.curve;

import org.jspecify.annotations.NullMarked;
