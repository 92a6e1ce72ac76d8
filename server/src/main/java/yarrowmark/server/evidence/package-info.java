/** Photos, logs and other files that stay with a session or one of its runs. */
package yarrowmark.server.evidence;
