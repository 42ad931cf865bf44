/**
 * What everything else rests on: errors with a kind, work that can be cancelled, sums and loops that give the same bits on any number
 * of threads, memos within bytes. It knows nothing of meshes or studies.
 */
@NullMarked
package lane.base;

import org.jspecify.annotations.NullMarked;
