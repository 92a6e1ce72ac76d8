/** The bench: codes, seats for devices, what a device sends, and live progress for the reviewer. */
package yarrowmark.server.bench;
