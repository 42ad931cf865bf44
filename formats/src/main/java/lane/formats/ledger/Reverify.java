package lane.formats.ledger;

import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import lane.base.Fault;
import lane.base.LaneException;
import lane.base.Work;
import lane.formats.FileLibrary;
import lane.formats.io.FileSet;
import lane.formats.io.Version;
import lane.formats.study.StudyJson;
import lane.ledger.CurveDiff;
import lane.ledger.Ledger;
import lane.ledger.LedgerCurve;
import lane.ledger.LedgerDiff;
import lane.ledger.LedgerTables;
import lane.reading.Reading;
import lane.study.Evaluator;
import lane.study.Results;
import lane.study.Source;
import lane.study.Study;
import lane.study.StudyDiff;
import lane.study.StudyFiles;
import org.jspecify.annotations.Nullable;

/**
 * A ledger verified: whether its files are those that were written, its inputs and definitions are what they were, and every
 * number computed anew is the same.
 *
 * @param numbers as written against as computed now
 * @param inputs that the numbers rest on
 * @param definitions what of the study is defined otherwise now, one phrase each
 * @param files of the ledger that are not as they were written, one sentence each
 * @param sealed whether the seal holds; null without one
 * @param study the file that the numbers were computed of now; null where that is the copy in the ledger
 * @param results what was computed now
 */
public record Reverify(
        LedgerDiff numbers,
        Inputs inputs,
        List<String> definitions,
        List<String> files,
        @Nullable Boolean sealed,
        @Nullable Path study,
        Results results) {
    /**
     * How it is verified.
     *
     * @param study to be taken in place of the one that the ledger names
     * @param lookIn folders where files that are missing are looked for, besides those of the study and the ledger
     * @param tolerance share of a number that it may differ by
     */
    public record How(@Nullable Path study, List<Path> lookIn, double tolerance) {
        public static final How PLAIN = new How(null, List.of(), 0);
    }

    /**
     * @throws LaneException when there is no ledger that can be read, or its study cannot be computed at all
     * @throws java.util.concurrent.CancellationException when cancelled
     */
    public static Reverify of(Path folder, How how, Work work) {
        List<String> files = FileSet.check(folder);
        LedgerReader.Written written = LedgerReader.read(folder);
        Path file = how.study != null ? how.study : recorded(written);
        Study now = file != null ? StudyFiles.given(StudyJson.load(file), written.runs()) : written.definitions();
        if (now == null) {
            throw new LaneException(
                    Fault.MISSING,
                    "The study of the ledger in " + folder + " is not where it was"
                            + (written.studyFile().isBlank() ? "" : " (" + written.studyFile() + ")")
                            + " and no copy was kept; say where it is.");
        }
        Path root = file != null
                ? Objects.requireNonNull(file.toAbsolutePath().normalize().getParent())
                : asRecorded(written);
        Set<Path> lookIn = new LinkedHashSet<>(how.lookIn);
        lookIn.add(root);
        Path beside = folder.toAbsolutePath().normalize().getParent();
        if (beside != null) {
            lookIn.add(beside);
        }
        var places = new FileLibrary(root);
        places.begin(now);
        Inputs inputs = Inputs.of(written.ledger(), places::resolve, List.copyOf(lookIn), work.stretch(0, 0.2));
        var library = FileLibrary.anew(root, inputs.elsewhere(patterns(now)));
        Results results = new Evaluator(library).evaluate(now, work.stretch(0.2, 1));
        Ledger computed = Ledger.of(results);
        LedgerDiff lines = LedgerDiff.of(written.ledger(), computed, how.tolerance);
        LedgerDiff points =
                CurveDiff.of(written.curves(), written.ledger(), curves(results, written), computed, how.tolerance);
        boolean edited = files.stream().anyMatch(f -> f.startsWith(LedgerTables.CURVE));
        LedgerDiff numbers = lines.with(points.because(edited ? "its table was changed after it was written" : ""))
                .because(String.join(
                        "; ", Made.here(Version.text(), Instant.now()).differs(written.made())));
        return new Reverify(
                withEdits(numbers, written, files),
                inputs,
                written.definitions() == null ? List.of() : StudyDiff.details(written.definitions(), now),
                files,
                Seal.holds(folder, files),
                file,
                results);
    }

    /** Those that the ledger tells of; one of an older program told of none. */
    private static List<LedgerCurve> curves(Results results, LedgerReader.Written written) {
        return written.curves().isEmpty()
                ? List.of()
                : results.study().readings().stream()
                        .filter(Reading::curve)
                        .flatMap(r -> LedgerCurve.of(r.id(), LedgerTables.curve(results, r)).stream())
                        .toList();
    }

    private static @Nullable Path recorded(LedgerReader.Written written) {
        if (written.studyFile().isBlank()) {
            return null;
        }
        try {
            Path file = written.folder().resolve(written.studyFile()).normalize();
            return Files.isRegularFile(file) ? file : null;
        } catch (InvalidPathException e) {
            // It was written on another kind of machine.
            return null;
        }
    }

    /** Where the study's folder was, if it is still there; else where the ledger is. */
    private static Path asRecorded(LedgerReader.Written written) {
        Path folder = written.folder().toAbsolutePath().normalize();
        Path beside = Objects.requireNonNullElse(folder.getParent(), folder);
        if (written.studyFile().isBlank()) {
            return beside;
        }
        try {
            Path there = folder.resolve(written.studyFile()).normalize().getParent();
            return there != null && Files.isDirectory(there) ? there : beside;
        } catch (InvalidPathException e) {
            return beside;
        }
    }

    private static List<String> patterns(Study study) {
        return study.sources().stream()
                .filter(Source.Simulation.class::isInstance)
                .map(Source.Simulation.class::cast)
                .flatMap(s ->
                        java.util.stream.Stream.concat(java.util.stream.Stream.of(s.file()), s.partFiles().stream()))
                .filter(p -> p.indexOf('*') >= 0)
                .distinct()
                .toList();
    }

    /** What was edited in the table is different, however right the number itself is. */
    private static LedgerDiff withEdits(LedgerDiff numbers, LedgerReader.Written written, List<String> files) {
        if (files.stream().anyMatch(f -> f.startsWith(LedgerWriter.LEDGER))) {
            // Its own record is not what was written, so what it says proves nothing of the program.
            return numbers.because(LedgerWriter.LEDGER + " was changed after it was written");
        }
        if (files.stream().noneMatch(f -> f.startsWith(LedgerWriter.TABLE))) {
            return numbers;
        }
        Map<String, LedgerReader.Edit> left = new LinkedHashMap<>(LedgerReader.edited(written));
        if (left.isEmpty()) {
            return numbers;
        }
        List<LedgerDiff.Change> different = new ArrayList<>();
        for (LedgerDiff.Change c : numbers.different()) {
            LedgerReader.Edit edit = left.remove(c.line().id());
            different.add(edit == null ? c : edited(c, edit, c.why() + "; " + edit.said()));
        }
        List<LedgerDiff.Change> within = new ArrayList<>(numbers.within());
        int same = numbers.same();
        for (Ledger.Line l : written.ledger().lines()) {
            LedgerReader.Edit edit = left.get(l.id());
            if (edit == null
                    || numbers.missing().stream().anyMatch(c -> c.line().equals(l))) {
                continue;
            }
            LedgerDiff.Change near = within.stream()
                    .filter(c -> c.line().id().equals(l.id()))
                    .findFirst()
                    .orElse(null);
            if (near == null) {
                same--;
                near = new LedgerDiff.Change(l, l.value(), l.value(), l.unit(), l.verdict(), "");
            } else {
                within.remove(near);
            }
            different.add(edited(near, edit, edit.said()));
        }
        return new LedgerDiff(same, within, different, numbers.missing(), numbers.added());
    }

    /** Before is what the table says. */
    private static LedgerDiff.Change edited(LedgerDiff.Change c, LedgerReader.Edit edit, String why) {
        return new LedgerDiff.Change(c.line(), edit.value(), c.after(), c.unit(), c.verdict(), why);
    }

    /** 0 all is as it was, 1 a number or a file of the ledger is not, 2 something is missing. */
    public int code() {
        return !numbers.different().isEmpty() || !files.isEmpty() || Boolean.FALSE.equals(sealed)
                ? 1
                : !numbers.missing().isEmpty() || !inputs.missing().isEmpty() ? 2 : 0;
    }
}
