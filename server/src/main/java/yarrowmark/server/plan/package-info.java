/** Plans: which tests, how many runs each, how long. */
@NullMarked
package yarrowmark.server.plan;

import org.jspecify.annotations.NullMarked;
