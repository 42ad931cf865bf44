/**
 * Writes a ledger as files. What stands in it is decided in core.
 */
@NullMarked
package lane.formats.ledger;

import org.jspecify.annotations.NullMarked;
