package lane.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.io.OutputStream;
import java.math.BigInteger;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.security.KeyPair;
import java.security.KeyPairGenerator;
import java.security.KeyStore;
import java.util.Date;
import java.util.List;
import javax.security.auth.x500.X500Principal;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.text.PDFTextStripper;
import org.bouncycastle.bcpg.ArmoredOutputStream;
import org.bouncycastle.bcpg.HashAlgorithmTags;
import org.bouncycastle.bcpg.PublicKeyAlgorithmTags;
import org.bouncycastle.bcpg.SymmetricKeyAlgorithmTags;
import org.bouncycastle.cert.jcajce.JcaX509CertificateConverter;
import org.bouncycastle.cert.jcajce.JcaX509v3CertificateBuilder;
import org.bouncycastle.openpgp.PGPKeyRingGenerator;
import org.bouncycastle.openpgp.PGPSignature;
import org.bouncycastle.openpgp.operator.PGPDigestCalculator;
import org.bouncycastle.openpgp.operator.jcajce.JcaPGPContentSignerBuilder;
import org.bouncycastle.openpgp.operator.jcajce.JcaPGPDigestCalculatorProviderBuilder;
import org.bouncycastle.openpgp.operator.jcajce.JcaPGPKeyPair;
import org.bouncycastle.openpgp.operator.jcajce.JcePBESecretKeyEncryptorBuilder;
import org.bouncycastle.operator.jcajce.JcaContentSignerBuilder;
import org.junit.jupiter.api.Test;

/** Ledgers verified, compared and sealed: leaves of tea that dry on a tray of 0.9 x 0.6 x 0.04 m, and a balance's table. */
// Certificates and keys have their dates so.
@SuppressWarnings("JavaUtilDate")
class LedgerVerbsTest extends TeaCase {
    private JsonNode verify(int code, String... more) throws Exception {
        var args = new java.util.ArrayList<>(List.of("verify", ledger.toString(), "--json"));
        args.addAll(List.of(more));
        assertThat(run(args.toArray(String[]::new))).as(out + err).isEqualTo(code);
        return new ObjectMapper().readTree(out);
    }

    private static void quiet(JsonNode made, String... but) {
        for (String path : List.of(
                "/numbers/different",
                "/numbers/missing",
                "/inputs/changed",
                "/inputs/moved",
                "/inputs/missing",
                "/definitions/changed",
                "/files/changed")) {
            if (!List.of(but).contains(path)) {
                assertThat(made.at(path)).as(path).isEmpty();
            }
        }
    }

    @Test
    void whatIsUntouchedIsTheSameToTheBitAlsoInAnotherFolder() throws Exception {
        JsonNode made = verify(0);
        quiet(made);
        // Eight lines, and the points of two curves.
        assertThat(made.at("/numbers/same").asInt()).isEqualTo(10);
        assertThat(made.at("/numbers/within").asInt()).isZero();
        assertThat(made.at("/inputs/same").asInt()).isEqualTo(2);
        assertThat(made.get("sealed").isNull()).isTrue();
        Path away = folder.resolve("away");
        Files.createDirectory(away);
        for (String name : List.of("runs", "waage.csv", "tea.lane.json", "ledger")) {
            Files.move(folder.resolve(name), away.resolve(name));
        }
        ledger = away.resolve("ledger");
        quiet(verify(0));
    }

    @Test
    void aChangedByteOfAnInputIsToldApartFromAChangedNumber() throws Exception {
        tray("tray.vtu", 0.25);
        JsonNode made = verify(1);
        quiet(made, "/numbers/different", "/inputs/changed");
        assertThat(made.at("/inputs/changed/0").asText()).isEqualTo("runs/tray.vtu");
        JsonNode mean = different(made, "mean", "tray");
        assertThat(mean.get("after").asDouble() - mean.get("before").asDouble())
                .isCloseTo(0.25, org.assertj.core.api.Assertions.within(1e-9));
        assertThat(mean.get("why").asText()).isEqualTo("file changed: runs/tray.vtu");
        // A blank at the end of a table changes the file and no number.
        tray("tray.vtu", 0);
        Files.writeString(folder.resolve("waage.csv"), "\n", java.nio.file.StandardOpenOption.APPEND);
        JsonNode blank = verify(0);
        quiet(blank, "/inputs/changed");
        assertThat(blank.at("/inputs/changed/0").asText()).isEqualTo("waage.csv");
    }

    private static JsonNode different(JsonNode made, String item, String lane) {
        for (JsonNode d : made.at("/numbers/different")) {
            if (d.get("item").asText().startsWith(item)
                    && d.get("lane").asText().equals(lane)) {
                return d;
            }
        }
        throw new AssertionError("no " + item + " of " + lane + " in " + made);
    }

    private void edit(String from, String to) throws IOException {
        String text = Files.readString(study);
        assertThat(text).contains(from);
        Files.writeString(study, text.replace(from, to));
    }

    @Test
    void changedDefinitionsAreNamedAndSoAreTheNumbersThatTheyChange() throws Exception {
        edit("\"x\": 0.85, \"y\": 0.3", "\"x\": 0.65, \"y\": 0.3");
        JsonNode made = verify(1);
        assertThat(made.at("/definitions/changed/0").asText())
                .isEqualTo("station \"middle\": shape.b.x was 0.85 and is 0.65");
        assertThat(different(made, "mean", "tray").get("why").asText()).contains("station", "0.85", "0.65");
        assertThat(made.at("/inputs/changed")).isEmpty();

        Files.writeString(study, STUDY);
        edit("1.0 * feuchte", "1.5 * feuchte");
        made = verify(1);
        assertThat(made.at("/definitions/changed/0").asText())
                .isEqualTo("quantity \"moisture\": formula was 1.0 * feuchte and is 1.5 * feuchte");
        assertThat(different(made, "mean", "tray").get("why").asText()).contains("1.5 * feuchte");

        Files.writeString(study, STUDY);
        edit("\"tolerance\": 0.5", "\"tolerance\": 0.0001");
        made = verify(1);
        assertThat(made.at("/definitions/changed/0").asText()).contains("check \"near\"", "tolerance was");
        JsonNode near = different(made, "across, L2", "tray");
        assertThat(near.get("verdictBefore").asText()).isEqualTo("within");
        assertThat(near.get("verdictAfter").asText()).isEqualTo("out");
        assertThat(near.get("before").asDouble()).isEqualTo(near.get("after").asDouble());

        // A reading that is gone takes its numbers along.
        Files.writeString(study, STUDY);
        String text = Files.readString(study);
        int at = text.indexOf(",\n   {\"kind\": \"tally\"");
        Files.writeString(study, text.substring(0, at) + text.substring(text.indexOf("}}],", at) + 2));
        made = verify(2);
        assertThat(made.at("/numbers/missing/0/why").asText()).contains("no such reading");
    }

    @Test
    void anEditedTableIsFoundWhereverItWasEdited() throws Exception {
        Path table = ledger.resolve("ledger.csv");
        List<String> lines = Files.readAllLines(table);
        int at = 0;
        while (!lines.get(at).contains(",mean,")) {
            at++;
        }
        String[] cells = lines.get(at).split(",", -1);
        String was = cells[5];
        cells[5] = was.replace(was.charAt(was.length() - 1), was.endsWith("7") ? '8' : '7');
        lines.set(at, String.join(",", cells));
        Files.writeString(table, String.join("\n", lines) + "\n");
        JsonNode made = verify(1);
        quiet(made, "/numbers/different", "/files/changed");
        assertThat(made.at("/files/changed/0").asText()).startsWith("ledger.csv");
        assertThat(made.at("/numbers/different")).hasSize(1);
        assertThat(made.at("/numbers/different/0/why").asText()).contains("the table was edited", was);
        assertThat(made.at("/numbers/different/0/before").asDouble()).isEqualTo(Double.parseDouble(cells[5]));
        assertThat(made.at("/numbers/different/0/after").asDouble()).isEqualTo(Double.parseDouble(was));

        // Its own record as well.
        run("evaluate", study.toString(), "--out", ledger.toString());
        Path json = ledger.resolve("ledger.json");
        String text = Files.readString(json);
        int value = text.indexOf("\"value\" : ", text.indexOf("\"item\" : \"mean\""));
        int end = text.indexOf(",", value);
        Files.writeString(json, text.substring(0, value) + "\"value\" : 13.5" + text.substring(end));
        made = verify(1);
        assertThat(made.at("/files/changed/0").asText()).startsWith("ledger.json");
        assertThat(different(made, "mean", "tray").get("before").asDouble()).isEqualTo(13.5);
        assertThat(different(made, "mean", "tray").get("why").asText())
                .isEqualTo("ledger.json was changed after it was written");
    }

    @Test
    void missingFilesAreMissingAndMovedOnesAreFoundByContent() throws Exception {
        Path attic = Files.createDirectories(folder.resolve("attic/deep"));
        Files.move(folder.resolve("runs/tray.vtu"), attic.resolve("other name.vtu"));
        JsonNode made = verify(0);
        quiet(made, "/inputs/moved");
        assertThat(made.at("/inputs/moved/0/from").asText()).isEqualTo("runs/tray.vtu");
        assertThat(made.at("/inputs/moved/0/to").asText()).endsWith("other name.vtu");

        Files.delete(attic.resolve("other name.vtu"));
        made = verify(2);
        quiet(made, "/inputs/missing", "/numbers/missing");
        assertThat(made.at("/inputs/missing/0").asText()).isEqualTo("runs/tray.vtu");
        for (JsonNode gone : made.at("/numbers/missing")) {
            assertThat(gone.get("after").isNull()).isTrue();
            assertThat(gone.get("why").asText()).startsWith("there is no number now: ");
        }
        assertThat(made.at("/numbers/missing/0/why").asText()).contains("tray.vtu");

        // Without its study the ledger's own copy is taken, and what it names is looked for where one says.
        tray("tray.vtu", 0);
        Path alone = Files.createTempDirectory(folder, "alone").resolve("of/tea");
        Files.createDirectories(alone.getParent());
        Files.move(ledger, alone, StandardCopyOption.ATOMIC_MOVE);
        ledger = alone;
        made = verify(2);
        assertThat(made.at("/inputs/missing")).hasSize(2);
        made = verify(0, "--look-in", folder.toString());
        quiet(made, "/inputs/moved");
        assertThat(made.at("/inputs/moved")).hasSize(2);
        assertThat(run("verify", folder.resolve("nowhere").toString())).isEqualTo(3);
        assertThat(err.strip().lines().count()).isEqualTo(1);
    }

    @Test
    void aToleranceTellsWhatIsNearAndTwoLedgersAreComparedLineByLine() throws Exception {
        tray("tray.vtu", 1e-9);
        JsonNode made = verify(0, "--tolerance", "1e-6");
        assertThat(made.at("/numbers/within").asInt()).isGreaterThan(3);
        verify(1);
        Path later = folder.resolve("later");
        tray("tray.vtu", 0.5);
        run("evaluate", study.toString(), "--out", later.toString());
        assertThat(run("compare", ledger.toString(), later.toString(), "--json"))
                .isEqualTo(1);
        JsonNode diff = new ObjectMapper().readTree(out);
        assertThat(diff.at("/numbers/missing")).isEmpty();
        assertThat(diff.at("/numbers/added")).isEmpty();
        assertThat(different(diff, "mean", "tray").get("after").asDouble()
                        - different(diff, "mean", "tray").get("before").asDouble())
                .isCloseTo(0.5, org.assertj.core.api.Assertions.within(1e-9));
        assertThat(run("compare", ledger.toString(), ledger.toString())).isZero();
        assertThat(out).contains("the same to the bit, 0 different");
        assertThat(run("compare", ledger.toString(), later.toString())).isEqualTo(1);
        assertThat(out).contains("different: mean", "->", "file changed: runs/tray.vtu");
    }

    @Test
    void aSealHoldsUntilSomethingIsChanged() throws Exception {
        assertThat(run("seal", ledger.toString(), "--name", "  ")).isEqualTo(3);
        assertThat(run("seal", ledger.toString(), "--name", "R. Amsel", "--statement", "reviewed"))
                .as(err)
                .isZero();
        assertThat(out).contains("R. Amsel", "\"reviewed\"", "without a signature");
        assertThat(verify(0).get("sealed").asBoolean()).isTrue();
        run("verify", ledger.toString());
        assertThat(out).contains("Sealed by R. Amsel", "It holds.");
        Files.writeString(ledger.resolve("ledger.csv"), "\n", java.nio.file.StandardOpenOption.APPEND);
        JsonNode made = verify(1);
        assertThat(made.get("sealed").isBoolean()).isTrue();
        assertThat(made.get("sealed").asBoolean()).isFalse();
        // What was changed after it was written is not sealed.
        assertThat(run("seal", ledger.toString(), "--name", "R. Amsel")).isEqualTo(3);
        assertThat(err).contains("ledger.csv");
    }

    private Path store() throws Exception {
        KeyPair keys = KeyPairGenerator.getInstance("EC").generateKeyPair();
        var who = new X500Principal("CN=R. Amsel,O=Tea");
        var now = System.currentTimeMillis();
        var certificate = new JcaX509CertificateConverter()
                .getCertificate(new JcaX509v3CertificateBuilder(
                                who,
                                BigInteger.ONE,
                                new Date(now - 1000),
                                new Date(now + 86_400_000L),
                                who,
                                keys.getPublic())
                        .build(new JcaContentSignerBuilder("SHA256withECDSA").build(keys.getPrivate())));
        KeyStore store = KeyStore.getInstance("PKCS12");
        store.load(null, null);
        store.setKeyEntry(
                "own", keys.getPrivate(), "leaf".toCharArray(), new java.security.cert.Certificate[] {certificate});
        Path file = folder.resolve("amsel.p12");
        try (OutputStream to = Files.newOutputStream(file)) {
            store.store(to, "leaf".toCharArray());
        }
        return file;
    }

    private Path ring() throws Exception {
        var made = KeyPairGenerator.getInstance("RSA");
        made.initialize(2048);
        var pair = new JcaPGPKeyPair(4, PublicKeyAlgorithmTags.RSA_GENERAL, made.generateKeyPair(), new Date());
        PGPDigestCalculator sum =
                new JcaPGPDigestCalculatorProviderBuilder().build().get(HashAlgorithmTags.SHA1);
        var ring = new PGPKeyRingGenerator(
                PGPSignature.POSITIVE_CERTIFICATION,
                pair,
                "R. Amsel <amsel@tea.example>",
                sum,
                null,
                null,
                new JcaPGPContentSignerBuilder(pair.getPublicKey().getAlgorithm(), HashAlgorithmTags.SHA256),
                new JcePBESecretKeyEncryptorBuilder(SymmetricKeyAlgorithmTags.AES_256, sum)
                        .build("leaf".toCharArray()));
        Path file = folder.resolve("amsel.asc");
        try (var to = new ArmoredOutputStream(Files.newOutputStream(file))) {
            ring.generateSecretKeyRing().encode(to);
        }
        return file;
    }

    @Test
    void aSealIsSignedByTheKeyThatAUserHas() throws Exception {
        for (Path key : List.of(store(), ring())) {
            assertThat(run("seal", ledger.toString(), "--name", "R. Amsel", "--key", key.toString(), "--password=bark"))
                    .isEqualTo(3);
            assertThat(err).contains("not opened by that password");
            assertThat(run("seal", ledger.toString(), "--name", "R. Amsel", "--key", key.toString(), "--password=leaf"))
                    .as(err)
                    .isZero();
            assertThat(out).contains("signed", "Amsel", "key ");
            assertThat(verify(0).get("sealed").asBoolean()).isTrue();
            // Another name under the same signature.
            Path seal = ledger.resolve("seal.json");
            String text = Files.readString(seal);
            Files.writeString(seal, text.replace("R. Amsel", "R. Drossel"));
            assertThat(verify(1).get("sealed").asBoolean()).isFalse();
            Files.writeString(seal, text);
            assertThat(verify(0).get("sealed").asBoolean()).isTrue();
            Files.delete(ledger.resolve(key.toString().endsWith("p12") ? "seal.json.p7s" : "seal.json.asc"));
            assertThat(verify(1).get("sealed").asBoolean()).isFalse();
        }
    }

    @Test
    void aCurveIsVerifiedPointByPoint() throws Exception {
        // Somebody moves one point of the measured curve in its table, by the last digit but one.
        Path points = ledger.resolve("profile-across.csv");
        String table = Files.readString(points);
        String line =
                table.lines().filter(l -> l.startsWith("scale,0.4")).findFirst().orElseThrow();
        Files.writeString(points, table.replace(line, line.replace("16.6", "16.7")));
        JsonNode made = verify(1);
        quiet(made, "/numbers/different", "/files/changed");
        JsonNode d = different(made, "across, points", "scale");
        assertThat(d.get("before").asDouble()).isEqualTo(16.7);
        assertThat(d.get("after").asDouble()).isEqualTo(16.6);
        assertThat(d.get("why").asText())
                .contains("1 of 5 points differ, the most at 0.4 m", "its table was changed after it was written");
        Files.writeString(points, table);
        verify(0);
        // The run itself changes: every point of its curve does, and the measured one stays.
        tray("tray.vtu", 0.25);
        d = different(verify(1), "across, points", "tray");
        assertThat(d.get("why").asText()).contains("9 of 9 points differ", "file changed: runs/tray.vtu");
        assertThat(d.get("after").asDouble() - d.get("before").asDouble())
                .isCloseTo(0.25, org.assertj.core.api.Assertions.within(1e-9));
    }

    @Test
    void anotherProgramOrJavaIsNamedAsTheReason() throws Exception {
        Path manifest = ledger.resolve("manifest.json");
        JsonNode root = new ObjectMapper().readTree(manifest.toFile());
        assertThat(root.at("/machine/java").asText()).contains(System.getProperty("java.runtime.version"));
        assertThat(root.at("/machine/system").asText()).contains(System.getProperty("os.name"));
        Path later = folder.resolve("later");
        Files.createDirectory(later);
        for (String name : List.of("ledger.json", "ledger.csv", "definitions.json", "profile-across.csv")) {
            Files.copy(ledger.resolve(name), later.resolve(name));
        }
        Files.writeString(
                later.resolve("manifest.json"),
                Files.readString(manifest).replace(System.getProperty("java.runtime.version"), "26.0.1"));
        String text = Files.readString(later.resolve("ledger.json"));
        Files.writeString(later.resolve("ledger.json"), text.replaceFirst("\"value\" : 1", "\"value\" : 2"));
        Path picture = folder.resolve("moved.svg");
        assertThat(run("compare", ledger.toString(), later.toString(), "--picture", picture.toString()))
                .isEqualTo(1);
        assertThat(out).contains("1 different", "java was ", "and is ", "26.0.1");
        assertThat(Files.readString(picture)).startsWith("<svg").contains("What moved", "tray");
        assertThat(run("compare", ledger.toString(), later.toString(), "--picture", "moved.pdf"))
                .isEqualTo(3);
    }

    @Test
    void whatACheckComparesWithStandsInItsTrail() throws Exception {
        JsonNode root =
                new ObjectMapper().readTree(ledger.resolve("ledger.json").toFile());
        for (JsonNode n : root.get("numbers")) {
            if (n.get("stop").asText().equals("check")
                    && n.get("verdict").asText().equals("within")) {
                assertThat(n.at("/others/0/as").asText()).isEqualTo("datum scale");
                assertThat(n.at("/others/0/steps").toString()).contains("waage.csv", "feuchte");
                return;
            }
        }
        throw new AssertionError("no judged check in " + root);
    }

    @Test
    void aReportOfALedgerTellsItsNumbersOrNone() throws Exception {
        Path pdf = folder.resolve("tea.pdf");
        Path page = folder.resolve("tea.html");
        assertThat(run("report", study.toString(), "--out", pdf + "," + page))
                .as(err)
                .isZero();
        assertThat(out).contains("tea.pdf", "tea.html");
        assertThat(Files.readString(page)).contains("tray", "waage.csv");
        try (PDDocument read = Loader.loadPDF(pdf.toFile())) {
            assertThat(new PDFTextStripper().getText(read)).contains("tea", "within", "waage.csv");
        }
        Path md = folder.resolve("tea.md");
        assertThat(run("report", ledger.toString(), "--out", md.toString(), "--quiet"))
                .isZero();
        assertThat(out + err).isEmpty();
        Files.delete(md);
        tray("tray.vtu", 0.25);
        assertThat(run("report", ledger.toString(), "--out", md.toString())).isEqualTo(1);
        assertThat(err).contains("are not those of the ledger", "./lane verify");
        assertThat(md).doesNotExist();
        assertThat(run("report", study.toString(), "--out", "tea.docx")).isEqualTo(3);
        assertThat(err).contains(".pdf", ".xlsx", "tea.docx");
    }

    @Test
    void filesAreConvertedAsTheyAre() throws Exception {
        String tray = folder.resolve("runs/tray.vtu").toString();
        Path xdmf = folder.resolve("tray.xdmf");
        assertThat(run("convert", tray, xdmf.toString())).as(err).isZero();
        assertThat(out).contains("60 nodes", "1 field", "tray.xdmf");
        Path csv = folder.resolve("nodes.csv");
        assertThat(run("convert", xdmf.toString(), csv.toString())).as(err).isZero();
        List<String> rows = Files.readAllLines(csv);
        assertThat(rows.getFirst()).isEqualTo("x,y,z,feuchte");
        assertThat(rows).hasSize(61);
        for (String row : rows.subList(1, rows.size())) {
            String[] c = row.split(",");
            // Moisture is linear along x, in the file's own centimetres.
            assertThat(Double.parseDouble(c[3])).isEqualTo(12 + 0 + 0.1 * Double.parseDouble(c[0]));
        }
        Path table = folder.resolve("plain.csv");
        assertThat(run("convert", folder.resolve("waage.csv").toString(), table.toString()))
                .as(err)
                .isZero();
        assertThat(Files.readAllLines(table)).startsWith("weg [m],feuchte [g/kg]", "0.0,12.6", "0.2,14.4");
        assertThat(run("convert", tray, folder.resolve("x.docx").toString())).isEqualTo(3);
        assertThat(err).contains(".vtu", "x.docx");
        assertThat(run("convert", tray, csv.toString(), "--fields", "salz")).isEqualTo(3);
        assertThat(err).contains("salz", "it has feuchte");
        assertThat(run("convert", tray, csv.toString(), "--all-times")).isEqualTo(3);
        assertThat(err).contains("stores no times");
    }
}
