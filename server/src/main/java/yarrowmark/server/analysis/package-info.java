/** Brings stored samples to the core's calculations and their results to the screen. Computes nothing itself. */
@NullMarked
package yarrowmark.server.analysis;

import org.jspecify.annotations.NullMarked;
