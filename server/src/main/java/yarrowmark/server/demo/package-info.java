/** The demo shelf of Saltmarsh Kit Review: invented devices and scores, made by a seeded generator. */
@NullMarked
package yarrowmark.server.demo;

import org.jspecify.annotations.NullMarked;
