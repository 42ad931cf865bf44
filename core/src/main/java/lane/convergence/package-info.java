/**
 * How a number changes as meshes or time steps are refined: its class, observed order, extrapolated value and numerical
 * uncertainty. Knows numbers only, neither runs nor units.
 */
@NullMarked
package lane.convergence;

import org.jspecify.annotations.NullMarked;
