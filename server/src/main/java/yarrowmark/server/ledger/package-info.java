/** Sessions, runs and readings, setting aside, and the samples that later calculations read. */
package yarrowmark.server.ledger;
