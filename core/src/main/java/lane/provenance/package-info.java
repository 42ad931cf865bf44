/**
 * How a number came about, as data: inputs by content and steps with their settings. It knows nothing of what makes the steps.
 */
@NullMarked
package lane.provenance;

import org.jspecify.annotations.NullMarked;
