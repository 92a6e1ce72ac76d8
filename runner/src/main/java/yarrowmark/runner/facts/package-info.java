@NullMarked
package yarrowmark.runner.facts;

import org.jspecify.annotations.NullMarked;
