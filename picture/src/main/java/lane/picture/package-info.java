/**
 * What pictures and charts share: palette, fonts, tick marks, lane styles, export. No window is needed.
 */
@NullMarked
package lane.picture;

import org.jspecify.annotations.NullMarked;
