/** Brings stored samples to the core's calculations and their results to the screen. Computes nothing itself. */
package yarrowmark.server.analysis;
