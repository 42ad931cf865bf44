/**
 * What readers of meshes share: data sets at one time, cells by type number, structured grids, pieces and blocks joined.
 */
@NullMarked
package lane.formats.grid;

import org.jspecify.annotations.NullMarked;
