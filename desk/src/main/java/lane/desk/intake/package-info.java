/**
 * The stop where files come in: sheets of runs, tables and theories.
 */
@NullMarked
package lane.desk.intake;

import org.jspecify.annotations.NullMarked;
