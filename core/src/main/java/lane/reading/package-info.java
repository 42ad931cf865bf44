/**
 * What is asked on stations and what a lane answers: profiles, tallies, balances. One class a kind; who uses answers knows only
 * {@code Outcome}.
 */
@NullMarked
package lane.reading;

import org.jspecify.annotations.NullMarked;
