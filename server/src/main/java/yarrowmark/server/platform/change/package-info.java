/** What memory keeps of records, and how it hears that they changed. */
@NullMarked
package yarrowmark.server.platform.change;

import org.jspecify.annotations.NullMarked;
