package lane.formats.seal;

import java.nio.charset.StandardCharsets;
import lane.base.LaneException;

/** Signs a content with a user's key, and tells whether a signature holds. */
public final class Signatures {
    private static final int HEAD = 64;

    private Signatures() {}

    /**
     * @param key the bytes of a key file: an OpenPGP secret key, or a PKCS#12 key store
     * @param password that opens it; empty for none
     * @throws LaneException when the key cannot be used, in one sentence
     */
    public static Signature sign(byte[] content, byte[] key, char[] password) {
        return openPgp(key) ? OpenPgp.sign(content, key, password) : X509.sign(content, key, password);
    }

    /** What stands beside an OpenPGP signature so that anybody can verify it; empty for X.509, which holds its own. */
    public static byte[] publicHalf(byte[] key) {
        return openPgp(key) ? OpenPgp.publicHalf(key) : new byte[0];
    }

    /** An OpenPGP packet has its highest bit set and is armoured with its name; a PKCS#12 store is a DER sequence. */
    private static boolean openPgp(byte[] key) {
        if (key.length < 2) {
            throw new LaneException("The key file is empty; give an OpenPGP secret key or a PKCS#12 key store.");
        }
        String head = new String(key, 0, Math.min(HEAD, key.length), StandardCharsets.ISO_8859_1);
        return head.contains("BEGIN PGP") || (key[0] & 0x80) != 0;
    }

    /**
     * Whether a signature holds for a content.
     *
     * @param kind as {@link Signature#kind()} has it
     * @param keys public keys for OpenPGP
     */
    public static boolean holds(String kind, byte[] content, byte[] signature, byte[] keys) {
        return kind.equals("openpgp") ? OpenPgp.holds(content, signature, keys) : X509.holds(content, signature);
    }
}
