/**
 * Where numbers are taken: shapes in space and frames, and what each comes to be in a run. It knows runs and cuts, no quantity.
 */
@NullMarked
package lane.station;

import org.jspecify.annotations.NullMarked;
