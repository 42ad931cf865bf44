/**
 * What all views of the window share: the open document with its evaluation, work behind the window, controls. It knows no view.
 */
@NullMarked
package lane.desk;

import org.jspecify.annotations.NullMarked;
