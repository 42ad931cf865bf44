/**
 * Numbers with how well they are known: value, unit, uncertainty by component. Knows units and nothing of where numbers come
 * from.
 */
@NullMarked
package lane.estimate;

import org.jspecify.annotations.NullMarked;
