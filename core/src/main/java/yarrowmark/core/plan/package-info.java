/** How long a plan takes, and how long is left of it. */
@NullMarked
package yarrowmark.core.plan;

import org.jspecify.annotations.NullMarked;
