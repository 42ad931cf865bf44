/**
 * Readers of surface formats: triangles and polygons.
 */
@NullMarked
package lane.formats.surface;

import org.jspecify.annotations.NullMarked;
