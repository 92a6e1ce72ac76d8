@NullMarked
package yarrowmark.runner.kernel;

import org.jspecify.annotations.NullMarked;
