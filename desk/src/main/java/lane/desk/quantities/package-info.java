/**
 * The stop where quantities are defined.
 */
@NullMarked
package lane.desk.quantities;

import org.jspecify.annotations.NullMarked;
