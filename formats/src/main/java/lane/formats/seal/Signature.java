package lane.formats.seal;

/**
 * A detached signature of a file.
 *
 * @param kind {@code openpgp} or {@code x509}
 * @param by who made it: the key's user, or the certificate's subject
 * @param key fingerprint of the key or certificate, hexadecimal
 * @param name of the file that holds it, beside what is signed
 * @param bytes of that file
 */
public record Signature(String kind, String by, String key, String name, byte[] bytes) {}
