/** The whole lab as open data: everything that was measured and decided, as tables that any program can read, and back. */
@NullMarked
package yarrowmark.server.lab;

import org.jspecify.annotations.NullMarked;
