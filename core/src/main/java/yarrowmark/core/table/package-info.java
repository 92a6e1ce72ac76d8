/**
 * Tables that people keep elsewhere: what each row and column of a spreadsheet most probably is, and what it says once
 * that is settled. Nothing here knows a kind of file.
 */
@NullMarked
package yarrowmark.core.table;

import org.jspecify.annotations.NullMarked;
