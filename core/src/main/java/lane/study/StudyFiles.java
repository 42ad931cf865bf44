package lane.study;

import java.util.Map;
import java.util.function.UnaryOperator;

/** The files that a study names, wherever it names them. */
public final class StudyFiles {
    private StudyFiles() {}

    /** The same study with every path as a function gives it: for one that goes to another folder while its data stay. */
    public static Study moved(Study study, UnaryOperator<String> other) {
        // What starts from a root stays where the root is.
        UnaryOperator<String> path = p -> Root.of(study.settings().roots(), p).isPresent() ? p : other.apply(p);
        Settings settings = study.settings();
        return renamed(study, path)
                .with(settings.withPlaces(
                        settings.roots().stream()
                                .map(r -> new Root(r.name(), placed(r.here(), other), placed(r.cluster(), other)))
                                .toList(),
                        placed(settings.pieces(), path)));
    }

    /** The same study with every path of a file as a function gives it. */
    public static Study renamed(Study study, UnaryOperator<String> path) {
        return study.withSources(all -> all.stream().map(s -> moved(s, path)).toList())
                .withStations(all -> all.stream()
                        .map(s -> s.shaped(s.shape().withFiles(path)))
                        .toList());
    }

    /** One from the root of a disk is where it is. */
    private static String placed(String folder, UnaryOperator<String> path) {
        return folder.isBlank() || folder.matches("/.*|[A-Za-z]:.*|\\\\\\\\.*") ? folder : path.apply(folder);
    }

    /** The same study with other files for some of its runs, by key of the lane: a study as a template. */
    public static Study given(Study study, Map<String, String> runs) {
        return study.withSources(all -> all.stream()
                .map(s -> s instanceof Source.Simulation run && runs.get(s.id()) instanceof String file
                        ? (Source) run.withFile(file)
                        : s)
                .toList());
    }

    private static Source moved(Source source, UnaryOperator<String> path) {
        return switch (source) {
            case Source.Simulation s ->
                s.withFile(path.apply(s.file()))
                        .withPartFiles(s.partFiles().stream().map(path).toList());
            case Source.Reference r ->
                new Source.Reference(
                        r.id(),
                        r.name(),
                        r.kind(),
                        r.files().stream().map(path).toList(),
                        r.constants(),
                        r.answers().stream().map(a -> a.withFile(path)).toList());
        };
    }
}
