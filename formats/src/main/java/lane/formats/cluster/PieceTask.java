package lane.formats.cluster;

import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import lane.base.LaneException;
import lane.base.Work;
import lane.formats.FileLibrary;
import lane.formats.io.FaultLog;
import lane.formats.piece.PieceAnswers;
import lane.formats.piece.PieceFolder;
import lane.formats.study.StudyJson;
import lane.study.Evaluator;
import lane.study.Piece;
import lane.study.Study;
import lane.study.StudyFiles;

/** A task of an evaluation on a cluster: makes its pieces one after the other, each put into the shared folder at its end. */
public final class PieceTask {
    private PieceTask() {}

    /**
     * @param spread the folder of the plan
     * @param attempt which array of the plan
     * @param task which task of it
     * @param told of each piece in one line
     * @return how many could not be made
     */
    public static int run(Path spread, int attempt, int task, Consumer<String> told) {
        SpreadPlan plan = SpreadPlan.load(spread);
        if (attempt >= plan.jobs().size()
                || task < 0
                || task >= plan.jobs().get(attempt).tasks().size()) {
            throw new LaneException("The plan has no task " + task + " in attempt " + attempt + ".");
        }
        List<String> ids = plan.jobs().get(attempt).tasks().get(task);
        Map<String, Piece> pieces = plan.pieces().stream()
                .collect(Collectors.toMap(SpreadPlan.Named::id, SpreadPlan.Named::piece, (a, b) -> a));
        Study study = StudyFiles.given(StudyJson.load(Path.of(plan.study())), plan.runs());
        var folder = new PieceFolder(spread.resolve("pieces"));
        var library = new FileLibrary(Path.of(plan.folder()));
        PieceAnswers answers = library.keeping(folder, lane -> Optional.empty());
        var evaluator = new Evaluator(library);
        int failed = 0;
        for (String id : ids) {
            // Another task, or one before that was put back into the queue, may have made it.
            if (folder.has(id)) {
                told.accept("there is " + id);
                continue;
            }
            Piece piece = pieces.get(id);
            try {
                if (piece == null) {
                    throw new LaneException("The plan does not hold the piece " + id + " any more.");
                }
                answers.collecting(id, () -> evaluator.make(study, piece, Work.QUIET));
                told.accept("made " + id);
            } catch (LaneException e) {
                failed++;
                folder.fail(id, e.getMessage());
                told.accept("failed " + id + ": " + e.getMessage());
            } catch (RuntimeException | OutOfMemoryError e) {
                failed++;
                String why = FaultLog.note("The piece " + id, e);
                folder.fail(id, why);
                told.accept("failed " + id + ": " + why);
            }
        }
        return failed;
    }
}
