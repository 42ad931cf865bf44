/** Signatures over a file by the keys that users have, OpenPGP or X.509. It knows files, and nothing of what they hold. */
@NullMarked
package lane.formats.seal;

import org.jspecify.annotations.NullMarked;
