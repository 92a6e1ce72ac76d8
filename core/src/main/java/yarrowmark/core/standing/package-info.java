/** Ranking on an incomplete grid: fit, uncertainty, place intervals, percentiles, weights of a purpose. Section 5. */
@NullMarked
package yarrowmark.core.standing;

import org.jspecify.annotations.NullMarked;
