@NullMarked
package yarrowmark.runner.measure;

import org.jspecify.annotations.NullMarked;
