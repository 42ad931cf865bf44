package lane.formats.ledger;

import java.awt.Graphics2D;
import java.util.List;
import java.util.function.Consumer;
import java.util.function.Supplier;
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
 * @param made by what, where and when
 */
public record Export(
        Results results,
        Ledger ledger,
        List<LedgerTable> tables,
        List<LedgerTable> curves,
        List<Figure> figures,
        Made made) {
    public Export {
        tables = List.copyOf(tables);
        curves = List.copyOf(curves);
        figures = List.copyOf(figures);
    }

    /** The program with its version. */
    public String program() {
        return made.program();
    }

    /** What a figure shows. */
    public enum Shows {
        READING,
        VIEW,
        TRAIL
    }

    /**
     * A drawing.
     *
     * @param of key of the reading or check; blank for a view
     * @param name of its files, without ending
     * @param caption made from station, quantity, time and lanes
     * @param width and {@code height}: in points
     * @param paint draws it into its width and height
     * @param svg the drawing; it refers to nothing outside
     * @param png the same as pixels
     * @param numbers that it shows, a line each with its head first; empty where it shows none
     */
    public record Figure(
            Shows shows,
            String of,
            String name,
            String caption,
            double width,
            double height,
            Consumer<Graphics2D> paint,
            Supplier<byte[]> svg,
            Supplier<byte[]> png,
            List<List<String>> numbers) {
        public Figure {
            numbers = List.copyOf(numbers);
        }
    }

    /** Readings and views, which stand on pages of their own. */
    List<Figure> drawn() {
        return figures.stream().filter(f -> f.shows != Shows.TRAIL).toList();
    }
}
