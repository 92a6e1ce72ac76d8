@NullMarked
package yarrowmark.runner.storage;

import org.jspecify.annotations.NullMarked;
