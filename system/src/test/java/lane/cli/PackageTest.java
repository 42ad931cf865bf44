package lane.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.TimeUnit;
import java.util.jar.JarEntry;
import java.util.jar.JarOutputStream;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import lane.formats.io.Version;
import org.junit.jupiter.api.Test;

/** What packages are made with: the version that is stated once, and the licences of all that is inside. */
class PackageTest extends VerbCase {
    private static final String JAVA =
            Path.of(System.getProperty("java.home"), "bin", "java").toString();

    @Test
    void theVersionIsStatedInOnePlace() throws Exception {
        Matcher m = Pattern.compile("<revision>(.*)</revision>").matcher(Files.readString(Path.of("../pom.xml")));
        assertThat(m.find()).isTrue();
        assertThat(Version.text()).isEqualTo(m.group(1));
        assertThat(m.find()).isFalse();
        assertThat(run("--version")).isZero();
        assertThat(out).contains("Crosscheck Lane " + Version.text());
        // No build file and no launcher says it again.
        try (var files = Files.walk(Path.of(".."), 2)) {
            for (Path f : files.filter(f -> f.getFileName().toString().matches("pom.xml|lane|lane.cmd|style.xml"))
                    .filter(Files::isRegularFile)
                    .toList()) {
                assertThat(Files.readString(f).replace("<revision>" + Version.text() + "</revision>", ""))
                        .as(f.toString())
                        .doesNotContain(">" + Version.text() + "<", "-" + Version.text() + ".jar");
            }
        }
    }

    private int tool(String name, String... args) throws Exception {
        String[] command = new String[args.length + 4];
        command[0] = JAVA;
        command[1] = "-cp";
        command[2] = System.getProperty("java.class.path");
        command[3] = "../tools/" + name;
        System.arraycopy(args, 0, command, 4, args.length);
        Process p = new ProcessBuilder(command).redirectErrorStream(true).start();
        err = new String(p.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        assertThat(p.waitFor(60, TimeUnit.SECONDS)).isTrue();
        return p.exitValue();
    }

    private void jar(String name, String... entries) throws IOException {
        Files.createDirectories(folder.resolve("lib"));
        try (var jar =
                new JarOutputStream(Files.newOutputStream(folder.resolve("lib").resolve(name)))) {
            for (String entry : entries) {
                jar.putNextEntry(new JarEntry(entry));
                jar.write(("text of " + entry).getBytes(StandardCharsets.UTF_8));
            }
        }
    }

    @Test
    void theLicencesOfAllThatIsInsideAreGathered() throws Exception {
        jar(
                "leaf-1.2.jar",
                "META-INF/LICENSE.txt",
                "META-INF/NOTICE",
                "leaf/Leaf.class",
                "leaf/LICENSE-of-something.class");
        jar("twig-3.jar", "twig/Twig.class");
        Path bom = folder.resolve("bom.json");
        String leaf =
                "{\"group\": \"org.leaf\", \"name\": \"leaf\", \"version\": \"1.2\", \"licenses\": [{\"license\": {\"id\": \"MIT\"}}]}";
        String twig =
                "{\"group\": \"org.twig\", \"name\": \"twig\", \"version\": \"3\", \"licenses\": [{\"expression\": \"0BSD OR MIT\"}]}";
        String own = "{\"group\": \"lane\", \"name\": \"core\", \"version\": \"9\"}";
        Files.writeString(bom, "{\"components\": [" + leaf + "," + twig + "," + own + "]}");
        Path to = folder.resolve("legal");
        assertThat(tool(
                        "Licences.java",
                        bom.toString(),
                        to.toString(),
                        folder.resolve("lib").toString()))
                .as(err)
                .isZero();
        assertThat(Files.readString(to.resolve("LIBRARIES.txt")))
                .contains("leaf 1.2: MIT", "twig 3: 0BSD OR MIT")
                .doesNotContain("core");
        assertThat(to.resolve("leaf-1.2/LICENSE.txt")).hasContent("text of META-INF/LICENSE.txt");
        assertThat(to.resolve("leaf-1.2/NOTICE")).exists();
    }
}
