@NullMarked
package yarrowmark.runner;

import org.jspecify.annotations.NullMarked;
