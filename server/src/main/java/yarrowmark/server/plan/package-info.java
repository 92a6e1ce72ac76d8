/** Plans: which tests, how many runs each, how long. */
package yarrowmark.server.plan;
