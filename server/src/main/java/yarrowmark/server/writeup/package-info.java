/** Write-ups: pages made of pieces, published as editions that stay as they were. */
@NullMarked
package yarrowmark.server.writeup;

import org.jspecify.annotations.NullMarked;
