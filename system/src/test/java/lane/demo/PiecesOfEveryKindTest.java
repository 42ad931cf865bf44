package lane.demo;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.TreeMap;
import lane.base.Work;
import lane.formats.FileLibrary;
import lane.formats.ledger.LedgerWriter;
import lane.formats.ledger.Made;
import lane.formats.piece.PieceFolder;
import lane.formats.study.StudyJson;
import lane.reading.Outcome;
import lane.study.Evaluator;
import lane.study.Results;
import lane.study.Study;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The greenhouse bed with every kind of reading, cut into pieces that are made one by one, and put together. */
class PiecesOfEveryKindTest {
    @TempDir
    Path folder;

    private static TreeMap<String, String> answers(Results r) {
        var all = new TreeMap<String, String>();
        r.study().readings().forEach(reading -> r.study().sources().forEach(lane -> {
            Outcome o = r.outcome(reading.id(), lane.id());
            var out = new StringBuilder().append(o.trail());
            r.scalars(reading.id(), lane.id()).forEach(s -> out.append(s).append('\n'));
            o.curve().ifPresent(p -> out.append(java.util.Arrays.toString(p.value()))
                    .append(java.util.Arrays.toString(p.abscissa()))
                    .append(p.bands().size())
                    .append(p.note()));
            out.append(o instanceof Outcome.Absent a ? a.reason() : o.unit().toString())
                    .append('\n');
            all.put(reading.id() + " of " + lane.id(), out.toString());
        }));
        return all;
    }

    private TreeMap<String, String> ledger(Results r, String name) throws IOException {
        Path to = folder.resolve(name);
        LedgerWriter.write(
                r,
                LedgerWriter.To.plain(to, folder.resolve("bed.lane.json"), Made.here("1", java.time.Instant.EPOCH)),
                Work.QUIET);
        var out = new TreeMap<String, String>();
        try (var all = Files.list(to)) {
            for (Path p : all.toList()) {
                out.put(p.getFileName().toString(), Files.readString(p));
            }
        }
        return out;
    }

    private void make(Study study, PieceFolder pieces, int block) {
        List<Evaluator.Planned> plan = new Evaluator(new FileLibrary(folder)).plan(study, block, Work.QUIET);
        for (Evaluator.Planned p : plan) {
            // Each as a program of its own would.
            var library = new FileLibrary(folder);
            var kept = library.keeping(pieces, lane -> Optional.empty());
            String id = PieceFolder.key("", p.definition()).orElseThrow();
            assertThat(pieces.has(id)).isFalse();
            kept.collecting(id, () -> new Evaluator(library).make(study, p.piece(), Work.QUIET));
            assertThat(pieces.has(id)).isTrue();
        }
    }

    @Test
    void piecesPutTogetherAreTheSameToTheByte() throws IOException {
        Study study = StudyJson.of(Bed.in(folder).toString(), "study");
        Results whole = new Evaluator(new FileLibrary(folder)).evaluate(study, Work.QUIET);
        var pieces = new PieceFolder(folder.resolve("pieces"));
        make(study, pieces, 2);

        var library = new FileLibrary(folder);
        library.keeping(new PieceFolder(pieces.folder()), lane -> Optional.of("It is not computed here."));
        Results merged = new Evaluator(library).evaluate(study, Work.QUIET);
        assertThat(answers(merged)).containsExactlyEntriesOf(answers(whole));
        assertThat(ledger(merged, "merged")).isEqualTo(ledger(whole, "whole"));
        assertThat(merged.checks()).hasSameSizeAs(whole.checks());
    }

    @Test
    void whereTheRunsAreNotTheirAnswersAre() throws IOException {
        Study study = StudyJson.of(Bed.in(folder).toString(), "study");
        var library = new FileLibrary(folder);
        library.keeping(new PieceFolder(folder.resolve("pieces")), lane -> Optional.empty());
        Results whole = new Evaluator(library).evaluate(study, Work.QUIET);
        for (String gone : List.of("dry.vtu", "round.vtu", "day0.vtu", "day1.vtu", "day2.vtu", "days.pvd")) {
            Files.delete(folder.resolve(gone));
        }
        var away = new FileLibrary(folder);
        away.keeping(new PieceFolder(folder.resolve("pieces")), lane -> Optional.empty());
        Results there = new Evaluator(away).evaluate(study, Work.QUIET);
        assertThat(there.failures()).containsKeys("bed", "dry");
        assertThat(answers(there)).containsExactlyEntriesOf(answers(whole));
    }

    @Test
    void aFileThatChangedIsReadAgainAlsoOfARunWithoutATime() throws IOException {
        Study study = StudyJson.of(Bed.in(folder).toString(), "study");
        var library = new FileLibrary(folder);
        library.keeping(new PieceFolder(folder.resolve("pieces")), lane -> Optional.empty());
        Results before = new Evaluator(library).evaluate(study, Work.QUIET);
        new Bed(folder).run("dry.vtu", Bed.BED, 13);
        var again = new FileLibrary(folder);
        again.keeping(new PieceFolder(folder.resolve("pieces")), lane -> Optional.empty());
        Results now = new Evaluator(again).evaluate(study, Work.QUIET);
        assertThat(answers(now))
                .isNotEqualTo(answers(before))
                .containsExactlyEntriesOf(answers(new Evaluator(new FileLibrary(folder)).evaluate(study, Work.QUIET)));
    }
}
