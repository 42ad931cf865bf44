/**
 * Pictures of fields on surfaces: camera, exact visibility, colours, axes and marks; the same bits on any number of threads.
 */
@NullMarked
package lane.picture.field;

import org.jspecify.annotations.NullMarked;
