/** What every feature stands on: problems, limits, the clock, the API document, and the pages' delivery. */
package yarrowmark.server.platform;
