/** Suites, their versions, tests and metrics; purposes that weigh them. */
@NullMarked
package yarrowmark.server.catalog;

import org.jspecify.annotations.NullMarked;
