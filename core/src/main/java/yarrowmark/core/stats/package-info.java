/** Samples and their noise: summaries, the resolution floor, and noise borrowed from other samples. Sections 1 and 2. */
@NullMarked
package yarrowmark.core.stats;

import org.jspecify.annotations.NullMarked;
