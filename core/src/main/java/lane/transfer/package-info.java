/**
 * Fields of one mesh on another: by interpolation, or by the overlap of cells, which keeps integrals. Knows meshes and stored
 * fields, neither quantities nor studies.
 */
@NullMarked
package lane.transfer;

import org.jspecify.annotations.NullMarked;
