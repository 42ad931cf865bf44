/**
 * Starts the window.
 */
@NullMarked
package lane.desk.app;

import org.jspecify.annotations.NullMarked;
