/**
 * Quantities bound to a run: values at places, nodes, cells and faces, integrals, stations resolved on runs. It knows no reading;
 * what formulas see beyond the place it asks of {@code Beyond}.
 */
@NullMarked
package lane.evaluation;

import org.jspecify.annotations.NullMarked;
