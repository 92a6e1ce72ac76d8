/** Finds models and configurations by any words of theirs. */
@NullMarked
package yarrowmark.server.shelf.search;

import org.jspecify.annotations.NullMarked;
