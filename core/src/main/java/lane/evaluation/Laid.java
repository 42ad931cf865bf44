package lane.evaluation;

import java.util.List;
import lane.cut.Cut;
import lane.cut.LaidSheet;
import lane.field.Part;
import org.jspecify.annotations.Nullable;

/**
 * What a station other than a line comes to be in one run, to be drawn and measured.
 *
 * @param parts parts of the run; empty where it is cut out
 * @param cut what is cut out; null for none
 * @param area of what is cut out, in square metres; NaN for none
 * @param sheet with what lies outside; null for none
 * @param branches of a cut curve
 * @param cells of a region; null for none
 * @param trouble why there is nothing, in one sentence; blank if there is something
 */
public record Laid(
        List<Part> parts,
        @Nullable Cut cut,
        double area,
        @Nullable LaidSheet sheet,
        List<CutCurveBranches.Branch> branches,
        int @Nullable [] cells,
        String trouble) {
    static Laid parts(List<Part> parts) {
        return new Laid(parts, null, Double.NaN, null, List.of(), null, "");
    }

    static Laid cut(Cut cut, double area, String trouble) {
        return new Laid(List.of(), cut, area, null, List.of(), null, trouble);
    }

    static Laid trouble(String sentence) {
        return new Laid(List.of(), null, Double.NaN, null, List.of(), null, sentence);
    }
}
