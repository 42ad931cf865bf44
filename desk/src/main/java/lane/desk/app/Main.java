package lane.desk.app;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.stream.Stream;
import lane.base.LaneException;
import lane.cli.Lane;
import lane.demo.DemoFiles;
import lane.formats.io.UserFolders;
import org.jspecify.annotations.Nullable;

/**
 * The way in: {@code demo FOLDER}, {@code open FILE…} and {@code shots FOLDER} come here, everything else goes to the
 * command line. Not an Application itself, so that it starts from a plain class path.
 */
public final class Main {
    private Main() {}

    public static void main(String[] args) {
        Locale.setDefault(Locale.ROOT);
        System.setProperty("java.awt.headless", "true");
        List<String> given = asked(args);
        String verb = given.getFirst();
        List<String> rest = given.subList(1, given.size());
        try {
            switch (verb) {
                case "demo" ->
                    window(
                            DemoFiles.make(
                                    rest.isEmpty()
                                            ? UserFolders.data().resolve("demo-" + DemoFiles.VERSION)
                                            : Path.of(rest.getFirst())),
                            List.of());
                case "open" -> open(rest.stream().map(Path::of).toList());
                case "shots" -> Shots.run(Path.of(rest.get(0)), Path.of(rest.get(1)), rest.size() > 2);
                default -> System.exit(Lane.run(args));
            }
        } catch (LaneException e) {
            System.err.println(e.getMessage());
            System.exit(1);
        }
    }

    /** What is asked for: a file alone, as from a double click, is opened, and so is nothing. */
    static List<String> asked(String... args) {
        List<String> given = Arrays.asList(args);
        boolean files =
                !given.isEmpty() && given.stream().allMatch(a -> !a.startsWith("-") && Files.exists(Path.of(a)));
        return given.isEmpty() || files
                ? Stream.concat(Stream.of("open"), given.stream()).toList()
                : given;
    }

    private static void open(List<Path> files) {
        Path study = files.stream()
                .filter(f -> f.toString().endsWith(".json"))
                .findFirst()
                .orElse(null);
        List<Path> others = files.stream().filter(f -> !f.equals(study)).toList();
        window(study, others);
    }

    private static void window(@Nullable Path study, List<Path> files) {
        LaneApp.start(study, files);
    }
}
