package lane.desk.intake;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import lane.base.Plain;
import lane.desk.Chosen;
import lane.desk.Session;
import lane.formats.DatasetReader;
import lane.formats.FileKinds;
import lane.formats.Series;
import lane.formats.io.FileNames;
import lane.formats.table.TableReader;
import lane.study.Source;
import lane.study.Study;

/**
 * Adds files to the study: a {@code .vtu} becomes a run, with the surfaces in a folder NAME-parts beside it or dropped with
 * it as its parts, and so do files of the other open formats; a table becomes a measurement; a study is opened instead.
 */
public final class FileDrop {
    private FileDrop() {}

    public static void add(Session session, List<Path> files) {
        Optional<Path> study = files.stream().filter(FileNames::study).findFirst();
        if (study.isPresent()) {
            session.openings().study(study.get());
            return;
        }
        List<Path> meshes = unnamed(files);
        List<Path> runs = meshes.stream()
                .filter(f -> DatasetReader.RUNS.contains(FileNames.ending(f)))
                .toList();
        List<Path> surfaces = meshes.stream()
                .filter(f -> DatasetReader.SURFACES.contains(FileNames.ending(f)))
                .toList();
        List<Path> tables = files.stream().filter(FileKinds::table).toList();
        List<Path> others = meshes.stream()
                .filter(f -> !runs.contains(f) && !surfaces.contains(f) && !tables.contains(f))
                .toList();
        if (others.size() < files.size()) {
            take(session, runs, surfaces, tables);
        }
        if (!others.isEmpty()) {
            session.say("\"" + others.getFirst().getFileName() + "\""
                    + (others.size() == 1
                            ? " is of a kind that is not read"
                            : " and " + Plain.count(others.size() - 1, "other") + " are of kinds that are not read")
                    + "; give a run ("
                    + String.join(", ", DatasetReader.RUNS) + "), a surface ("
                    + String.join(", ", DatasetReader.SURFACES) + "), a table ("
                    + String.join(", ", TableReader.ENDINGS) + ") or a study (lane.json).");
        }
    }

    /** Without what another one refers to, which is read with that. */
    private static List<Path> unnamed(List<Path> files) {
        if (files.stream().allMatch(DatasetReader::refers) || files.stream().noneMatch(DatasetReader::refers)) {
            return files;
        }
        Set<Path> named = files.stream()
                .flatMap(f -> DatasetReader.named(f).stream())
                .map(f -> f.toAbsolutePath().normalize())
                .collect(Collectors.toSet());
        return files.stream()
                .filter(f -> !named.contains(f.toAbsolutePath().normalize()))
                .toList();
    }

    private static void take(Session session, List<Path> runs, List<Path> surfaces, List<Path> tables) {
        boolean onRun =
                session.study().source(session.selected(Chosen.SOURCE)).orElse(null) instanceof Source.Simulation;
        if (runs.isEmpty() && !surfaces.isEmpty() && onRun) {
            onto(session, surfaces);
            return;
        }
        // Surfaces without any run are runs themselves.
        List<Path> meshes = runs.isEmpty() ? surfaces : runs;
        session.edit(
                "Add files",
                study -> tables(session, runs(session, study, meshes, runs.isEmpty() ? List.of() : surfaces), tables));
        if (!session.study().sources().isEmpty()) {
            session.select(Chosen.SOURCE, session.study().sources().getLast().id());
        }
        session.go(1);
    }

    /** From so many files on that differ by a number only, they are taken as times of one run. */
    private static final int MANY = 5;

    private static Study runs(Session session, Study study, List<Path> meshes, List<Path> surfaces) {
        Study next = study;
        var series = new java.util.LinkedHashMap<Path, List<Path>>();
        for (Path mesh : meshes) {
            Path key = Series.around(mesh).map(mesh::resolveSibling).orElse(mesh);
            series.computeIfAbsent(key, k -> new ArrayList<>()).add(mesh);
        }
        List<Path> files = new ArrayList<>();
        series.forEach((pattern, members) -> {
            if (members.size() >= MANY) {
                files.add(pattern);
            } else {
                files.addAll(members);
            }
        });
        List<String> names = Names.of(
                files.stream()
                        .map(f -> f.toString().replace("*", "").replace('\\', '/'))
                        .toList(),
                names(study));
        for (int i = 0; i < files.size(); i++) {
            Path run = files.get(i);
            List<Path> parts = new ArrayList<>(surfaces);
            parts.addAll(beside(run));
            next = with(
                    next,
                    new Source.Simulation(
                            id(next, names.get(i)),
                            names.get(i),
                            path(session, run),
                            parts.stream().map(p -> path(session, p)).distinct().toList(),
                            "",
                            "runs"));
        }
        return next;
    }

    private static List<String> names(Study study) {
        return study.sources().stream().map(Source::name).toList();
    }

    /** Each table becomes a measurement; of a kind that is known, it answers what its like answers. */
    private static Study tables(Session session, Study study, List<Path> tables) {
        List<String> paths = tables.stream().map(t -> path(session, t)).toList();
        List<String> names = Names.of(paths, names(study));
        var taken = new HashSet<String>(study.sources().stream().map(Source::id).toList());
        List<Source> made = new ArrayList<>();
        for (int i = 0; i < paths.size(); i++) {
            String id = Study.freshId(names.get(i), taken);
            taken.add(id);
            made.add(new Source.Reference(
                    id,
                    names.get(i),
                    Source.Kind.MEASUREMENT,
                    List.of(paths.get(i)),
                    Map.of(),
                    Kin.answers(session, study, paths.get(i))));
        }
        Study next = study.withSources(list -> {
            list.addAll(made);
            return list;
        });
        // The first reference is what the others are compared with, unless there is a datum.
        boolean datum = study.source(study.datum()).isPresent();
        return datum || paths.isEmpty()
                ? next
                : next.withDatum(
                        next.sources().get(next.sources().size() - paths.size()).id());
    }

    /** A table copied from elsewhere becomes a file beside the study, so that its numbers have an origin. */
    static void paste(Session session) {
        var board = javafx.scene.input.Clipboard.getSystemClipboard();
        if (board.hasFiles()) {
            add(session, board.getFiles().stream().map(java.io.File::toPath).toList());
            return;
        }
        String text = board.hasString() ? board.getString() : "";
        if (text.isBlank() || text.strip().lines().count() < 2) {
            session.say("The clipboard holds no table; copy its rows with their header, at least two lines.");
            return;
        }
        Path folder = session.file().toAbsolutePath().getParent();
        int n = 1;
        while (Files.exists(Objects.requireNonNull(folder).resolve("pasted-" + n + ".txt"))) {
            n++;
        }
        Path file = folder.resolve("pasted-" + n + ".txt");
        try {
            lane.formats.io.AtomicFile.write(file, text.endsWith("\n") ? text : text + "\n");
            add(session, List.of(file));
        } catch (lane.base.LaneException e) {
            session.say(e.getMessage());
        }
    }

    /** Surfaces alone become parts of the selected run. */
    private static void onto(Session session, List<Path> surfaces) {
        if (session.study().source(session.selected(Chosen.SOURCE)).orElse(null) instanceof Source.Simulation run) {
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

    private static String id(Study study, String name) {
        return Study.freshId(name, study.sources().stream().map(Source::id).toList());
    }

    private static boolean has(Path file, String ending) {
        return file.toString().toLowerCase(Locale.ROOT).endsWith(ending);
    }

    private static List<Path> beside(Path run) {
        Path folder = run.resolveSibling(FileNames.stem(run.toString()) + "-parts");
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
        return session.library().named(file);
    }
}
