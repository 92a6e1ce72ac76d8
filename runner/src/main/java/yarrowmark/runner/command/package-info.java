/** Commands of a reviewer's own that are carried out and timed. */
@NullMarked
package yarrowmark.runner.command;

import org.jspecify.annotations.NullMarked;
