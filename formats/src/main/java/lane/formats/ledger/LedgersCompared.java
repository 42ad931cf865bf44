package lane.formats.ledger;

import java.nio.file.Path;
import java.util.List;
import lane.ledger.CurveDiff;
import lane.ledger.LedgerDiff;
import lane.study.StudyDiff;

/**
 * Two ledgers line by line, such as those before and after a new version of a solver.
 *
 * @param definitions what of the study is defined otherwise in the later one, one phrase each
 * @param programs what of the program, its libraries or the machine is another one, one phrase each
 */
public record LedgersCompared(LedgerDiff numbers, List<String> definitions, List<String> programs) {
    /** @throws lane.base.LaneException when there is no ledger that can be read */
    public static LedgersCompared of(Path earlier, Path later, double tolerance) {
        LedgerReader.Written one = LedgerReader.read(earlier);
        LedgerReader.Written two = LedgerReader.read(later);
        LedgerDiff lines = LedgerDiff.of(one.ledger(), two.ledger(), tolerance);
        List<String> programs = two.made().differs(one.made());
        LedgerDiff numbers = lines.with(CurveDiff.of(one.curves(), one.ledger(), two.curves(), two.ledger(), tolerance))
                .because(String.join("; ", programs));
        return new LedgersCompared(
                numbers,
                one.definitions() == null || two.definitions() == null
                        ? List.of()
                        : StudyDiff.details(one.definitions(), two.definitions()),
                programs);
    }
}
