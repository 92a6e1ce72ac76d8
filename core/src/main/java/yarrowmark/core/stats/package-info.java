/** Samples and their noise: summaries, the resolution floor, and noise borrowed from other samples. Sections 1 and 2. */
package yarrowmark.core.stats;
