/** What every request and answer has in common. */
@NullMarked
package yarrowmark.server.platform.http;

import org.jspecify.annotations.NullMarked;
