package lane.study;

import java.util.Map;
import java.util.function.UnaryOperator;

/** The files that a study names, wherever it names them. */
public final class StudyFiles {
    private StudyFiles() {}

    /** The same study with every path as a function gives it: for one that goes to another folder while its data stay. */
    public static Study moved(Study study, UnaryOperator<String> path) {
        return study.withSources(all -> all.stream().map(s -> moved(s, path)).toList())
                .withStations(all -> all.stream()
                        .map(s -> s.shaped(s.shape().withFiles(path)))
                        .toList());
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
