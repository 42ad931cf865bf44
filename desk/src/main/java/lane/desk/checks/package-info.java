/**
 * The stop where lanes are judged. One form a kind of rule.
 */
@NullMarked
package lane.desk.checks;

import org.jspecify.annotations.NullMarked;
