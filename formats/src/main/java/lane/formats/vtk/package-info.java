/**
 * Readers and writers of the VTK file formats, XML and legacy.
 */
@NullMarked
package lane.formats.vtk;

import org.jspecify.annotations.NullMarked;
