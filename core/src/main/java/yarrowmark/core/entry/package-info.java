/** Scores that people type: reading them, and noticing likely slips. */
@NullMarked
package yarrowmark.core.entry;

import org.jspecify.annotations.NullMarked;
