/** Files that people attach: kept by the hash of their content, served so that nothing in them can act. */
@NullMarked
package yarrowmark.server.files;

import org.jspecify.annotations.NullMarked;
