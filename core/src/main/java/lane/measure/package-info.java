/**
 * What a tally measures over surfaces, curves and regions: means, integrals, flows, forces, extremes. One class a kind.
 */
@NullMarked
package lane.measure;

import org.jspecify.annotations.NullMarked;
