/** The ledger as a neutral table: what is written, by whichever format. Knows the study and its results. */
@NullMarked
package lane.ledger;

import org.jspecify.annotations.NullMarked;
