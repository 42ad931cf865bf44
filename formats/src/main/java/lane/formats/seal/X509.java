package lane.formats.seal;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.security.GeneralSecurityException;
import java.security.KeyStore;
import java.security.MessageDigest;
import java.security.PrivateKey;
import java.security.cert.Certificate;
import java.security.cert.X509Certificate;
import java.util.Arrays;
import java.util.Collection;
import java.util.Collections;
import java.util.HexFormat;
import lane.base.LaneException;
import org.bouncycastle.cert.X509CertificateHolder;
import org.bouncycastle.cert.jcajce.JcaCertStore;
import org.bouncycastle.cms.CMSException;
import org.bouncycastle.cms.CMSProcessableByteArray;
import org.bouncycastle.cms.CMSSignedData;
import org.bouncycastle.cms.CMSSignedDataGenerator;
import org.bouncycastle.cms.SignerInformation;
import org.bouncycastle.cms.jcajce.JcaSignerInfoGeneratorBuilder;
import org.bouncycastle.cms.jcajce.JcaSimpleSignerInfoVerifierBuilder;
import org.bouncycastle.operator.OperatorCreationException;
import org.bouncycastle.operator.jcajce.JcaContentSignerBuilder;
import org.bouncycastle.operator.jcajce.JcaDigestCalculatorProviderBuilder;

/** Signatures by an X.509 certificate: the Cryptographic Message Syntax (RFC 5652), detached, with the certificates in it. */
final class X509 {
    static final String NAME = "seal.json.p7s";

    private X509() {}

    /** @param store a key store as PKCS#12 has it */
    static Signature sign(byte[] content, byte[] store, char[] password) {
        try {
            KeyStore keys = KeyStore.getInstance("PKCS12");
            keys.load(new ByteArrayInputStream(store), password);
            for (String alias : Collections.list(keys.aliases())) {
                if (keys.getKey(alias, password) instanceof PrivateKey key
                        && keys.getCertificate(alias) instanceof X509Certificate own) {
                    return signed(content, key, own, keys.getCertificateChain(alias));
                }
            }
            throw new LaneException("The key store holds no private key with a certificate.");
        } catch (IOException e) {
            throw new LaneException(
                    "The key store is not opened by that password, or it is no PKCS#12 file (.p12, .pfx).", e);
        } catch (GeneralSecurityException | OperatorCreationException | CMSException e) {
            throw new LaneException("The key store cannot be used: " + e.getMessage() + ".", e);
        }
    }

    private static Signature signed(byte[] content, PrivateKey key, X509Certificate own, Certificate[] chain)
            throws GeneralSecurityException, OperatorCreationException, CMSException, IOException {
        String algorithm =
                switch (key.getAlgorithm()) {
                    case "RSA" -> "SHA256withRSA";
                    case "EC" -> "SHA256withECDSA";
                    case "Ed25519", "EdDSA" -> "Ed25519";
                    case "DSA" -> "SHA256withDSA";
                    default ->
                        throw new LaneException("A key of the kind " + key.getAlgorithm()
                                + " is not used here; RSA, EC and Ed25519 are.");
                };
        var made = new CMSSignedDataGenerator();
        made.addSignerInfoGenerator(new JcaSignerInfoGeneratorBuilder(new JcaDigestCalculatorProviderBuilder().build())
                .build(new JcaContentSignerBuilder(algorithm).build(key), own));
        made.addCertificates(new JcaCertStore(Arrays.asList(chain)));
        return new Signature(
                "x509",
                own.getSubjectX500Principal().getName(),
                HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(own.getEncoded())),
                NAME,
                made.generate(new CMSProcessableByteArray(content), false).getEncoded());
    }

    /** Whether a signature holds by the certificate in it; whom that belongs to, its subject says. */
    static boolean holds(byte[] content, byte[] signature) {
        try {
            var made = new CMSSignedData(new CMSProcessableByteArray(content), signature);
            boolean any = false;
            for (SignerInformation signer : made.getSignerInfos()) {
                Collection<X509CertificateHolder> found = made.getCertificates().getMatches(signer.getSID());
                if (found.isEmpty()
                        || !signer.verify(new JcaSimpleSignerInfoVerifierBuilder()
                                .build(found.iterator().next()))) {
                    return false;
                }
                any = true;
            }
            return any;
        } catch (CMSException e) {
            // What was signed is another content, or the signature is damaged.
            return false;
        } catch (OperatorCreationException | java.security.cert.CertificateException e) {
            throw new LaneException("The X.509 signature cannot be read: " + e.getMessage() + ".", e);
        }
    }
}
