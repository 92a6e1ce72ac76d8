/** Configurations of units and the facts that they are made of. */
@NullMarked
package yarrowmark.server.shelf.configuration;

import org.jspecify.annotations.NullMarked;
