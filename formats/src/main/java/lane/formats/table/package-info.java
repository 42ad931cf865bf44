/**
 * Tables as text and workbooks, read by a recipe or as they come, and written.
 */
@NullMarked
package lane.formats.table;

import org.jspecify.annotations.NullMarked;
