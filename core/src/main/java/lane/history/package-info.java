/**
 * Numbers over time or iteration: whether they have settled, and how well their mean is known. Knows numbers only, neither units
 * nor where they come from.
 */
@NullMarked
package lane.history;

import org.jspecify.annotations.NullMarked;
