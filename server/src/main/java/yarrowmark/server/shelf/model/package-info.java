/** Models, their makers and their units: what they are and which of their fields can be edited. */
@NullMarked
package yarrowmark.server.shelf.model;

import org.jspecify.annotations.NullMarked;
