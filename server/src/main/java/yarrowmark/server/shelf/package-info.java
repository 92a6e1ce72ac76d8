/** Models, units and configurations with their facts; checklists; searching them all. */
@NullMarked
package yarrowmark.server.shelf;

import org.jspecify.annotations.NullMarked;
