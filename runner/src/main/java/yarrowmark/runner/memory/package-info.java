@NullMarked
package yarrowmark.runner.memory;

import org.jspecify.annotations.NullMarked;
