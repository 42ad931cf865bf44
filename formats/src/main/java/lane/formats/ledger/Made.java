package lane.formats.ledger;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.File;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import lane.base.Plain;

/**
 * By what a ledger was made, where and when: the part of it that differs from run to run.
 *
 * @param program with its version
 * @param time to the second
 * @param machine its name, system, processor and Java, by word
 * @param libraries versions by name, of those that were at hand
 */
public record Made(String program, String time, Map<String, String> machine, Map<String, String> libraries) {
    private static final Pattern JAR = Pattern.compile("([A-Za-z][A-Za-z0-9_.-]*?)-(\\d[A-Za-z0-9_.-]*)\\.jar");

    /** Here and by this program. */
    public static Made here(String version, Instant time) {
        var machine = new LinkedHashMap<String, String>();
        machine.put("host", host());
        machine.put("system", property("os.name") + " " + property("os.version"));
        machine.put(
                "processor",
                property("os.arch") + ", " + Plain.count(Runtime.getRuntime().availableProcessors(), "core"));
        machine.put("java", property("java.vendor") + " " + property("java.runtime.version"));
        return new Made(
                "Crosscheck Lane " + version,
                time.truncatedTo(ChronoUnit.SECONDS).toString(),
                machine,
                libraries(property("java.class.path")));
    }

    private static String property(String name) {
        return System.getProperty(name, "");
    }

    /** As the system tells it of itself; no network is asked. */
    private static String host() {
        return Stream.of(System.getenv("HOSTNAME"), System.getenv("COMPUTERNAME"), file("/etc/hostname"))
                .filter(h -> h != null && !h.isBlank())
                .map(String::strip)
                .findFirst()
                .orElse("not named");
    }

    private static String file(String path) {
        try {
            return Files.readString(Path.of(path));
        } catch (IOException | RuntimeException e) {
            // A machine without a name is no fault.
            return "";
        }
    }

    /** Names and versions of the archives of a class path, in the order of their names. */
    static Map<String, String> libraries(String classPath) {
        var out = new TreeMap<String, String>();
        Arrays.stream(classPath.split(Pattern.quote(File.pathSeparator)))
                .map(p -> p.substring(Math.max(p.lastIndexOf('/'), p.lastIndexOf('\\')) + 1))
                .map(JAR::matcher)
                .filter(Matcher::matches)
                .forEach(m -> out.put(m.group(1), m.group(2)));
        return out;
    }

    /** Of a manifest; blank where an older program wrote none of it. */
    static Made of(JsonNode manifest) {
        return new Made(
                manifest.path("program").asText(),
                manifest.path("written").asText(),
                texts(manifest.path("machine")),
                texts(manifest.path("libraries")));
    }

    private static Map<String, String> texts(JsonNode node) {
        var out = new LinkedHashMap<String, String>();
        node.properties().forEach(e -> out.put(e.getKey(), e.getValue().asText()));
        return out;
    }

    /** For a manifest. */
    Map<String, Object> about() {
        var out = new LinkedHashMap<String, Object>();
        out.put("program", program);
        out.put("written", time);
        out.put("machine", machine);
        out.put("libraries", libraries);
        return out;
    }

    /** Where and when, in a line. */
    public String words() {
        return "Written by " + program + " on " + time.replace('T', ' ').replace("Z", " UTC") + ", on "
                + machine.values().stream().filter(m -> !m.isBlank()).collect(Collectors.joining(", "));
    }

    /** What is another one than there: a phrase for each, such as {@code java was 25.0.1 and is 25.0.2}. */
    List<String> differs(Made was) {
        List<String> out = new ArrayList<>();
        if (!was.program.equals(program)) {
            out.add(was.program + " wrote it, and this is " + program);
        }
        phrases("", was.machine, machine, out);
        phrases("library ", was.libraries, libraries, out);
        return out;
    }

    private static void phrases(String of, Map<String, String> was, Map<String, String> is, List<String> out) {
        was.forEach((name, value) -> {
            String now = is.get(name);
            if (now != null && !now.equals(value)) {
                out.add(of + name + " was " + value + " and is " + now);
            }
        });
    }
}
