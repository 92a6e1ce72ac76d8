/** Spreadsheets that come in: files read into tables, what a table is read as, and that made into rows of the ledger. */
@NullMarked
package yarrowmark.server.ledger.table;

import org.jspecify.annotations.NullMarked;
