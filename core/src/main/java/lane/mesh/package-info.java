/**
 * Meshes in flat arrays, their cells, faces and quality, and finding a place in them. It knows no field and no file.
 */
@NullMarked
package lane.mesh;

import org.jspecify.annotations.NullMarked;
