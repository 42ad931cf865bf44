/**
 * Files of a study on disk: which reader a file needs, runs over time opened once, parts matched with meshes.
 */
@NullMarked
package lane.formats;

import org.jspecify.annotations.NullMarked;
