package lane.formats.seal;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.Iterator;
import java.util.Locale;
import lane.base.LaneException;
import org.bouncycastle.bcpg.ArmoredOutputStream;
import org.bouncycastle.bcpg.BCPGOutputStream;
import org.bouncycastle.bcpg.HashAlgorithmTags;
import org.bouncycastle.openpgp.PGPException;
import org.bouncycastle.openpgp.PGPObjectFactory;
import org.bouncycastle.openpgp.PGPPrivateKey;
import org.bouncycastle.openpgp.PGPPublicKey;
import org.bouncycastle.openpgp.PGPPublicKeyRingCollection;
import org.bouncycastle.openpgp.PGPSecretKey;
import org.bouncycastle.openpgp.PGPSecretKeyRing;
import org.bouncycastle.openpgp.PGPSecretKeyRingCollection;
import org.bouncycastle.openpgp.PGPSignature;
import org.bouncycastle.openpgp.PGPSignatureGenerator;
import org.bouncycastle.openpgp.PGPSignatureList;
import org.bouncycastle.openpgp.PGPUtil;
import org.bouncycastle.openpgp.operator.bc.BcKeyFingerprintCalculator;
import org.bouncycastle.openpgp.operator.bc.BcPBESecretKeyDecryptorBuilder;
import org.bouncycastle.openpgp.operator.bc.BcPGPContentSignerBuilder;
import org.bouncycastle.openpgp.operator.bc.BcPGPContentVerifierBuilderProvider;
import org.bouncycastle.openpgp.operator.bc.BcPGPDigestCalculatorProvider;

/** Signatures by an OpenPGP key (RFC 9580, in the form of RFC 4880 that all programs read). */
final class OpenPgp {
    static final String NAME = "seal.json.asc";

    private OpenPgp() {}

    /** @param key a secret key as it is exported, armoured or not */
    static Signature sign(byte[] content, byte[] key, char[] password) {
        try {
            var rings = new PGPSecretKeyRingCollection(
                    PGPUtil.getDecoderStream(new ByteArrayInputStream(key)), new BcKeyFingerprintCalculator());
            PGPSecretKey secret = signing(rings);
            PGPPrivateKey own = opened(secret, password);
            var made = new PGPSignatureGenerator(
                    new BcPGPContentSignerBuilder(secret.getPublicKey().getAlgorithm(), HashAlgorithmTags.SHA256),
                    secret.getPublicKey());
            made.init(PGPSignature.BINARY_DOCUMENT, own);
            made.update(content);
            var out = new ByteArrayOutputStream();
            try (var armour = ArmoredOutputStream.builder().clearHeaders().build(out);
                    var stream = new BCPGOutputStream(armour)) {
                made.generate().encode(stream);
            }
            return new Signature(
                    "openpgp",
                    user(secret.getPublicKey(), rings),
                    print(secret.getPublicKey()),
                    NAME,
                    out.toByteArray());
        } catch (IOException | PGPException e) {
            throw new LaneException("The OpenPGP key cannot be read: " + e.getMessage() + ".", e);
        }
    }

    private static PGPSecretKey signing(PGPSecretKeyRingCollection rings) {
        for (PGPSecretKeyRing ring : rings) {
            for (Iterator<PGPSecretKey> keys = ring.getSecretKeys(); keys.hasNext(); ) {
                PGPSecretKey key = keys.next();
                if (key.isSigningKey() && !key.isPrivateKeyEmpty()) {
                    return key;
                }
            }
        }
        throw new LaneException("The file holds no secret OpenPGP key that can sign; export one with its secret part.");
    }

    private static PGPPrivateKey opened(PGPSecretKey secret, char[] password) {
        try {
            return secret.extractPrivateKey(
                    new BcPBESecretKeyDecryptorBuilder(new BcPGPDigestCalculatorProvider()).build(password));
        } catch (PGPException e) {
            throw new LaneException("The OpenPGP key is not opened by that password.", e);
        }
    }

    private static String user(PGPPublicKey key, PGPSecretKeyRingCollection rings) {
        Iterator<String> own = key.getUserIDs();
        if (own.hasNext()) {
            return own.next();
        }
        // A subkey signs for the key that it belongs to.
        for (PGPSecretKeyRing ring : rings) {
            Iterator<String> users = ring.getPublicKey().getUserIDs();
            if (ring.getPublicKey(key.getKeyID()) != null && users.hasNext()) {
                return users.next();
            }
        }
        return "";
    }

    private static String print(PGPPublicKey key) {
        var out = new StringBuilder();
        for (byte b : key.getFingerprint()) {
            out.append(String.format(Locale.ROOT, "%02x", b));
        }
        return out.toString();
    }

    /**
     * Whether a signature holds.
     *
     * @param keys public keys, armoured or not
     * @throws LaneException when none of the keys made it, or it cannot be read
     */
    static boolean holds(byte[] content, byte[] signature, byte[] keys) {
        try {
            var found = new PGPObjectFactory(
                            PGPUtil.getDecoderStream(new ByteArrayInputStream(signature)),
                            new BcKeyFingerprintCalculator())
                    .nextObject();
            if (!(found instanceof PGPSignatureList list) || list.isEmpty()) {
                return false;
            }
            PGPSignature made = list.get(0);
            PGPPublicKey key = new PGPPublicKeyRingCollection(
                            PGPUtil.getDecoderStream(new ByteArrayInputStream(keys)), new BcKeyFingerprintCalculator())
                    .getPublicKey(made.getKeyID());
            if (key == null) {
                throw new LaneException(
                        "The key given did not make the signature; give the public key of who sealed it.");
            }
            made.init(new BcPGPContentVerifierBuilderProvider(), key);
            made.update(content);
            return made.verify();
        } catch (IOException | PGPException e) {
            throw new LaneException("The OpenPGP signature or key cannot be read: " + e.getMessage() + ".", e);
        }
    }

    /** The public half of a secret key, as it may be given to anybody. */
    static byte[] publicHalf(byte[] key) {
        try {
            var rings = new PGPSecretKeyRingCollection(
                    PGPUtil.getDecoderStream(new ByteArrayInputStream(key)), new BcKeyFingerprintCalculator());
            var out = new ByteArrayOutputStream();
            try (var armour = ArmoredOutputStream.builder().clearHeaders().build(out)) {
                for (PGPSecretKeyRing ring : rings) {
                    ring.toCertificate().encode(armour);
                }
            }
            return out.toByteArray();
        } catch (IOException | PGPException e) {
            throw new LaneException("The OpenPGP key cannot be read: " + e.getMessage() + ".", e);
        }
    }
}
