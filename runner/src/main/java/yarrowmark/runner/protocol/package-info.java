/** What the runner and the bench say to each other. */
@NullMarked
package yarrowmark.runner.protocol;

import org.jspecify.annotations.NullMarked;
