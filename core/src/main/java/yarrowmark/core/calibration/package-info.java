/** What the totals of built-in suites are held against. */
@NullMarked
package yarrowmark.core.calibration;

import org.jspecify.annotations.NullMarked;
