/** Ranking on an incomplete grid: fit, uncertainty, place intervals, percentiles, weights of a purpose. Section 5. */
package yarrowmark.core.standing;
