/** The lab's public side: what readers get who are nobody here, from the server itself or as a folder for any web host. */
@NullMarked
package yarrowmark.server.site;

import org.jspecify.annotations.NullMarked;
