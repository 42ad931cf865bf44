/**
 * The stop where readings are asked and looked at. One form a kind of ask and measure.
 */
@NullMarked
package lane.desk.readings;

import org.jspecify.annotations.NullMarked;
