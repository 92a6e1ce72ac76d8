@NullMarked
package yarrowmark.runner.offline;

import org.jspecify.annotations.NullMarked;
