import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.TreeMap;
import java.util.jar.JarEntry;
import java.util.jar.JarFile;
import java.util.regex.Pattern;
import java.util.stream.Stream;

/**
 * Gathers the licences of all that is shipped: their texts as each library carries them, and one list that names each library with
 * version and licence. Arguments: SBOM FOLDER JAR-FOLDER...
 */
public final class Licences {
    private static final Pattern TEXT =
            Pattern.compile("(META-INF/)?[A-Za-z0-9-]*(LICEN[CS]E|NOTICE|COPYING)[A-Za-z0-9.-]*", Pattern.CASE_INSENSITIVE);

    public static void main(String[] args) throws IOException {
        JsonNode bom = new ObjectMapper().readTree(Path.of(args[0]).toFile());
        Path folder = Files.createDirectories(Path.of(args[1]));
        var list = new TreeMap<String, String>();
        for (JsonNode c : bom.path("components")) {
            if (c.path("group").asText().equals("lane")) {
                continue;
            }
            List<String> names = new ArrayList<>();
            for (JsonNode l : c.path("licenses")) {
                JsonNode of = l.path("license");
                names.add(
                        of.hasNonNull("id")
                                ? of.path("id").asText()
                                : of.hasNonNull("name") ? of.path("name").asText() : l.path("expression").asText());
            }
            if (names.isEmpty() || names.contains("")) {
                throw new IOException("No licence is known of " + c.path("name").asText());
            }
            list.put(c.path("name").asText() + " " + c.path("version").asText(), String.join(", ", names));
        }
        var out = new StringBuilder("Libraries in this package and their licences; the texts stand beside this list, those of Java in"
                + " the runtime's own folder legal.\n\n");
        list.forEach((what, licence) -> out.append(what).append(": ").append(licence).append('\n'));
        Files.writeString(folder.resolve("LIBRARIES.txt"), out.toString());
        for (int i = 2; i < args.length; i++) {
            try (Stream<Path> jars = Files.list(Path.of(args[i]))) {
                for (Path jar : jars.filter(j -> j.toString().endsWith(".jar")).sorted().toList()) {
                    texts(jar, folder);
                }
            }
        }
    }

    private static void texts(Path jar, Path folder) throws IOException {
        String name = jar.getFileName().toString().replaceFirst("\\.jar$", "");
        try (JarFile file = new JarFile(jar.toFile())) {
            for (JarEntry e : Collections.list(file.entries())) {
                if (!e.isDirectory() && TEXT.matcher(e.getName()).matches()) {
                    Path own = Files.createDirectories(folder.resolve(name));
                    try (InputStream in = file.getInputStream(e)) {
                        Files.write(
                                own.resolve(e.getName().substring(e.getName().lastIndexOf('/') + 1)), in.readAllBytes());
                    }
                }
            }
        }
    }
}
