/**
 * Judging answers of lanes: rules, differences of curves, tolerances and verdicts. All that a verdict rests on is computed here and
 * nowhere else.
 */
@NullMarked
package lane.check;

import org.jspecify.annotations.NullMarked;
