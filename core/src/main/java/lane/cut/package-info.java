/**
 * Surfaces and curves cut out of a mesh: sections, isosurfaces, shells, sheets and streamlines. Each is a mesh of its own
 * whose points keep, as a stencil, which nodes of the run they stand between, so that any field comes along at the price
 * of a few multiplications.
 */
@NullMarked
package lane.cut;

import org.jspecify.annotations.NullMarked;
