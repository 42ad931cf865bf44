package lane.desk.intake;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Stream;
import lane.desk.Session;
import lane.formats.DatasetReader;
import lane.formats.FileLibrary;
import lane.study.Source;
import lane.study.Study;

/**
 * Adds files to the study: a {@code .vtu} becomes a run, with the surfaces in a folder NAME-parts beside it or dropped with
 * it as its parts, and so do files of the other open formats; a table becomes a measurement.
 */
public final class FileDrop {
    private FileDrop() {}

    public static void add(Session session, List<Path> files) {
        List<Path> runs = files.stream()
                .filter(f -> DatasetReader.RUNS.contains(DatasetReader.ending(f)))
                .toList();
        List<Path> surfaces = files.stream()
                .filter(f -> DatasetReader.SURFACES.contains(DatasetReader.ending(f)))
                .toList();
        List<Path> tables = files.stream()
                .filter(f -> has(f, ".csv") || has(f, ".txt") || has(f, ".tsv"))
                .toList();
        List<Path> others = files.stream()
                .filter(f -> !runs.contains(f) && !surfaces.contains(f) && !tables.contains(f))
                .toList();
        if (!others.isEmpty()) {
            session.say("\"" + others.getFirst().getFileName()
                    + "\" is of a kind that is not read; give a run ("
                    + String.join(", ", DatasetReader.RUNS) + "), a surface ("
                    + String.join(", ", DatasetReader.SURFACES) + ") or a table (csv, txt, tsv).");
            return;
        }
        boolean onRun = session.study().source(session.selected("source")).orElse(null) instanceof Source.Simulation;
        if (runs.isEmpty() && !surfaces.isEmpty() && onRun) {
            onto(session, surfaces);
            return;
        }
        // Surfaces without any run are runs themselves.
        List<Path> meshes = runs.isEmpty() ? surfaces : runs;
        session.edit("Add files", study -> {
            Study next = study;
            for (Path run : meshes) {
                List<Path> parts = new ArrayList<>(runs.isEmpty() ? List.of() : surfaces);
                parts.addAll(beside(run));
                next = with(
                        next,
                        new Source.Simulation(
                                id(next, run),
                                FileLibrary.stem(run.toString()),
                                path(session, run),
                                parts.stream()
                                        .map(p -> path(session, p))
                                        .distinct()
                                        .toList(),
                                "",
                                "runs"));
            }
            for (Path table : tables) {
                next = with(
                        next,
                        new Source.Reference(
                                id(next, table),
                                FileLibrary.stem(table.toString()),
                                Source.Kind.MEASUREMENT,
                                List.of(path(session, table)),
                                Map.of(),
                                List.of()));
            }
            return next;
        });
        if (!session.study().sources().isEmpty()) {
            session.select("source", session.study().sources().getLast().id());
        }
        session.go(1);
    }

    /** Surfaces alone become parts of the selected run. */
    private static void onto(Session session, List<Path> surfaces) {
        if (session.study().source(session.selected("source")).orElse(null) instanceof Source.Simulation run) {
            List<String> parts = new ArrayList<>(run.partFiles());
            surfaces.forEach(s -> parts.add(path(session, s)));
            session.edit(
                    "Add parts",
                    s -> s.with(run.withPartFiles(parts.stream().distinct().toList())));
        }
    }

    private static Study with(Study study, Source source) {
        return study.withSources(list -> {
            list.add(source);
            return list;
        });
    }

    private static String id(Study study, Path file) {
        return Study.freshId(
                FileLibrary.stem(file.getFileName().toString()),
                study.sources().stream().map(Source::id).toList());
    }

    private static boolean has(Path file, String ending) {
        return file.toString().toLowerCase(Locale.ROOT).endsWith(ending);
    }

    private static List<Path> beside(Path run) {
        Path folder = run.resolveSibling(FileLibrary.stem(run.toString()) + "-parts");
        if (!Files.isDirectory(folder)) {
            return List.of();
        }
        try (Stream<Path> all = Files.list(folder)) {
            return all.filter(p -> has(p, ".vtp")).sorted().toList();
        } catch (IOException e) {
            return List.of();
        }
    }

    /** Relative to the study where both stand on one drive, with forward slashes. */
    private static String path(Session session, Path file) {
        Path folder = session.file().toAbsolutePath().getParent();
        Path absolute = file.toAbsolutePath();
        boolean together = absolute.getRoot() != null && absolute.getRoot().equals(folder.getRoot());
        return (together ? folder.relativize(absolute) : absolute).toString().replace('\\', '/');
    }
}
