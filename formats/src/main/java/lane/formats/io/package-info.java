/**
 * Bytes and files: hashes, stamps, atomic writing, limits, and sentences for what goes wrong. It knows no format.
 */
@NullMarked
package lane.formats.io;

import org.jspecify.annotations.NullMarked;
