@NullMarked
package yarrowmark.runner.bench;

import org.jspecify.annotations.NullMarked;
