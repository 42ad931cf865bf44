/**
 * Named quantities and what they are made of: definitions as a graph of formulas, units of fields. It computes nothing.
 */
@NullMarked
package lane.quantity;

import org.jspecify.annotations.NullMarked;
