/** Suites, their versions, tests and metrics; purposes that weigh them. */
package yarrowmark.server.catalog;
