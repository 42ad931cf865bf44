package lane.formats.ledger;

import java.util.List;
import lane.ledger.Ledger;
import lane.ledger.LedgerTable;
import lane.study.Results;

/**
 * What is exported, ready for every format.
 *
 * @param results of the study
 * @param ledger every number with its trail
 * @param tables for people: readings by lane, checks
 * @param curves the points of each curve, named after their files without ending
 * @param figures drawings of readings
 * @param program with its version
 */
public record Export(
        Results results,
        Ledger ledger,
        List<LedgerTable> tables,
        List<LedgerTable> curves,
        List<Figure> figures,
        String program) {
    public Export {
        tables = List.copyOf(tables);
        curves = List.copyOf(curves);
        figures = List.copyOf(figures);
    }

    /**
     * A drawing.
     *
     * @param name of its files, without ending
     * @param caption made from station, quantity, time and lanes
     * @param svg the drawing; it refers to nothing outside
     * @param png the same as pixels
     */
    public record Figure(String name, String caption, byte[] svg, byte[] png) {}
}
