/**
 * Studies and quantity catalogues as JSON, with the migration of older versions.
 */
@NullMarked
package lane.formats.study;

import org.jspecify.annotations.NullMarked;
