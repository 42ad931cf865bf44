/**
 * Fits of numbers by least squares, with how well their coefficients are known. Knows numbers only, neither units nor where they
 * come from.
 */
@NullMarked
package lane.fit;

import org.jspecify.annotations.NullMarked;
