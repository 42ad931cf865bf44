/**
 * Commands without a window.
 */
@NullMarked
package lane.cli;

import org.jspecify.annotations.NullMarked;
