/** What counts of one metric on one configuration, kept beside the readings it is made from; and the noise that samples lend. */
@NullMarked
package yarrowmark.server.ledger.sample;

import org.jspecify.annotations.NullMarked;
