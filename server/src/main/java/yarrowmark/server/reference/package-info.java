/** Scores that others published: kept with their source, never ranked or averaged with own readings. */
@NullMarked
package yarrowmark.server.reference;

import org.jspecify.annotations.NullMarked;
