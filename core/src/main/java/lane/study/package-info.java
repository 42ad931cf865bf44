/**
 * A study as one document, and its evaluation: sources, stations, quantities, readings, checks together; what is remembered and what
 * is computed anew.
 */
@NullMarked
package lane.study;

import org.jspecify.annotations.NullMarked;
