/** People, roles, signing in, and which requests need what. */
@NullMarked
package yarrowmark.server.access;

import org.jspecify.annotations.NullMarked;
