/**
 * SHA-256 of many files side by side, by a process of its own, where the processor has no instructions for that: sixteen files
 * in the lanes of a vector take hardly longer than one alone. It knows {@code io} and nothing of what is in the files.
 */
@NullMarked
package lane.formats.hash;

import org.jspecify.annotations.NullMarked;
