/** Listening on the network: a certificate of this machine's own, and the way from plain HTTP to HTTPS. */
@NullMarked
package yarrowmark.server.lan;

import org.jspecify.annotations.NullMarked;
