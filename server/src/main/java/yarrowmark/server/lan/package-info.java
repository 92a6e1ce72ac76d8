/** Listening on the network: a certificate of this machine's own, and the way from plain HTTP to HTTPS. */
package yarrowmark.server.lan;
