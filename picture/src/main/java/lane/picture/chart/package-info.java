/**
 * Charts of profiles, drawn the same for screen, PNG and SVG.
 */
@NullMarked
package lane.picture.chart;

import org.jspecify.annotations.NullMarked;
