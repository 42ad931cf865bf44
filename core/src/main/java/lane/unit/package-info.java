/**
 * Units and their dimensions: reads them, converts numbers, says what can be compared. It knows only {@code base}.
 */
@NullMarked
package lane.unit;

import org.jspecify.annotations.NullMarked;
