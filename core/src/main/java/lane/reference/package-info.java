/**
 * What theories and measurements answer: curves by formula, columns of tables, recipes that say how a table is read.
 */
@NullMarked
package lane.reference;

import org.jspecify.annotations.NullMarked;
