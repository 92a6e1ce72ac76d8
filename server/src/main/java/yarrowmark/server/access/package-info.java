/** People, roles, signing in, and which requests need what. */
package yarrowmark.server.access;
