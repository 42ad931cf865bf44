/**
 * The stop where places are chosen, with the picture. One form a kind of shape.
 */
@NullMarked
package lane.desk.stations;

import org.jspecify.annotations.NullMarked;
