/**
 * Readers of formats on HDF5, and of the light XML beside such files.
 */
@NullMarked
package lane.formats.hdf;

import org.jspecify.annotations.NullMarked;
