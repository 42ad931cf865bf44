/**
 * The frame around the stops: rail, chips, search, trail, dialogs.
 */
@NullMarked
package lane.desk.shell;

import org.jspecify.annotations.NullMarked;
