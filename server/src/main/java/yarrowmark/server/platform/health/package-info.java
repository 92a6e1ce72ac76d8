/** What is said of the program and its machine. */
@NullMarked
package yarrowmark.server.platform.health;

import org.jspecify.annotations.NullMarked;
