package lane.formats.ledger;

import com.fasterxml.jackson.core.JacksonException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.SerializationFeature;
import com.fasterxml.jackson.databind.json.JsonMapper;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.LinkedHashMap;
import java.util.List;
import lane.base.Fault;
import lane.base.LaneException;
import lane.formats.io.AtomicFile;
import lane.formats.io.FileHash;
import lane.formats.io.FileSet;
import lane.formats.seal.Signature;
import lane.formats.seal.Signatures;
import org.jspecify.annotations.Nullable;

/**
 * A name, a date and a statement over a ledger: {@code seal.json} holds the SHA-256 of the manifest, which holds that of each
 * file. With a key its signature stands beside.
 *
 * @param manifest SHA-256 of the manifest as it was sealed
 * @param signed kind of the signature; blank for none
 * @param signer whom the key says it is of; blank without a signature
 * @param key fingerprint of the key; blank without a signature
 */
public record Seal(
        String name, String date, String statement, String manifest, String signed, String signer, String key) {
    static final String FILE = "seal.json";
    private static final String KEYS = "seal-key.asc";

    private static final JsonMapper MAPPER =
            JsonMapper.builder().enable(SerializationFeature.INDENT_OUTPUT).build();

    /**
     * Seals a ledger.
     *
     * @param key an OpenPGP secret key or a PKCS#12 key store; null for a seal without a signature
     * @throws LaneException when the ledger is not whole, the name is blank, or the key cannot be used
     */
    public static Seal on(
            Path folder, String name, String statement, Instant time, @Nullable Path key, char[] password) {
        if (name.isBlank()) {
            throw new LaneException("A seal says who made it; give a name.");
        }
        List<String> wrong = FileSet.check(folder);
        if (!wrong.isEmpty()) {
            throw new LaneException(
                    "The ledger in " + folder + " is not as it was written, so it is not sealed: " + wrong.getFirst());
        }
        try {
            String hash = FileHash.sha256(folder.resolve(FileSet.MANIFEST));
            byte[] keyBytes = key == null ? new byte[0] : Files.readAllBytes(key);
            // The signature covers who signs, so it is made twice: the first tells whose key it is.
            Signature whose = key == null ? null : Signatures.sign(new byte[0], keyBytes, password);
            var seal = new Seal(
                    name.strip(),
                    time.truncatedTo(ChronoUnit.SECONDS).toString(),
                    statement.strip(),
                    hash,
                    whose == null ? "" : whose.kind(),
                    whose == null ? "" : whose.by(),
                    whose == null ? "" : whose.key());
            byte[] content = seal.text().getBytes(StandardCharsets.UTF_8);
            for (String old : List.of("seal.json.asc", "seal.json.p7s", KEYS)) {
                Files.deleteIfExists(folder.resolve(old));
            }
            AtomicFile.write(folder.resolve(FILE), out -> out.write(content));
            if (key != null) {
                Signature made = Signatures.sign(content, keyBytes, password);
                AtomicFile.write(folder.resolve(made.name()), out -> out.write(made.bytes()));
                byte[] half = Signatures.publicHalf(keyBytes);
                if (half.length > 0) {
                    AtomicFile.write(folder.resolve(KEYS), out -> out.write(half));
                }
            }
            return seal;
        } catch (IOException e) {
            throw new LaneException("The seal could not be written: " + AtomicFile.reason(e) + ".", e);
        }
    }

    private String text() {
        var root = new LinkedHashMap<String, Object>();
        root.put("seal", 1);
        root.put("name", name);
        root.put("date", date);
        root.put("statement", statement);
        root.put("manifestSha256", manifest);
        if (!signed.isBlank()) {
            root.put("signed", signed);
            root.put("signer", signer);
            root.put("key", key);
        }
        try {
            return MAPPER.writeValueAsString(root) + "\n";
        } catch (JacksonException e) {
            throw new IllegalStateException("a seal can always be written", e);
        }
    }

    /** The seal on a ledger; null where there is none. */
    public static @Nullable Seal of(Path folder) {
        Path file = folder.resolve(FILE);
        if (!Files.isRegularFile(file)) {
            return null;
        }
        try {
            JsonNode root = MAPPER.readTree(file.toFile());
            return new Seal(
                    root.path("name").asText(),
                    root.path("date").asText(),
                    root.path("statement").asText(),
                    root.path("manifestSha256").asText(),
                    root.path("signed").asText(),
                    root.path("signer").asText(),
                    root.path("key").asText());
        } catch (JacksonException e) {
            throw new LaneException(Fault.DAMAGED, "The seal " + file + " is damaged.", e);
        } catch (IOException e) {
            throw FileHash.unreadable(file, e);
        }
    }

    /**
     * Whether the seal on a ledger holds: manifest and files are those that were sealed, and the signature is one of this seal.
     *
     * @param wrong what {@link FileSet#check} says of the files
     * @return null where there is no seal
     */
    static @Nullable Boolean holds(Path folder, List<String> wrong) {
        Seal seal = of(folder);
        if (seal == null) {
            return null;
        }
        try {
            if (!wrong.isEmpty()
                    || !FileHash.sha256(folder.resolve(FileSet.MANIFEST)).equals(seal.manifest)) {
                return false;
            }
            if (seal.signed.isBlank()) {
                return true;
            }
            Path signature = folder.resolve(seal.signed.equals("openpgp") ? "seal.json.asc" : "seal.json.p7s");
            Path keys = folder.resolve(KEYS);
            return Files.isRegularFile(signature)
                    && Signatures.holds(
                            seal.signed,
                            Files.readAllBytes(folder.resolve(FILE)),
                            Files.readAllBytes(signature),
                            Files.isRegularFile(keys) ? Files.readAllBytes(keys) : new byte[0]);
        } catch (IOException e) {
            throw FileHash.unreadable(folder.resolve(FILE), e);
        }
    }

    /** Who sealed it, when and what they say, in a sentence. */
    public String words() {
        return "Sealed by " + name + " on " + date.substring(0, Math.min(10, date.length()))
                + (statement.isBlank() ? "" : ": \"" + statement + "\"")
                + (signed.isBlank()
                        ? ", without a signature."
                        : ", signed (" + (signed.equals("openpgp") ? "OpenPGP" : "X.509") + ") by " + signer + ", key "
                                + key + ".");
    }
}
