/**
 * The stop where the ledger is looked through and written.
 */
@NullMarked
package lane.desk.ledger;

import org.jspecify.annotations.NullMarked;
