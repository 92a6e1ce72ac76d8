/** What can be read of a computer's heat, clock and power while something runs. */
@NullMarked
package yarrowmark.runner.sensor;

import org.jspecify.annotations.NullMarked;
