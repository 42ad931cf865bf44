package lane.cli;

import java.awt.Graphics2D;
import java.util.Optional;
import lane.picture.Palette;
import lane.picture.chart.NumberChart;
import lane.picture.chart.ReadingChart;
import lane.quantity.Quantity;
import lane.reading.Reading;
import lane.study.Results;
import lane.study.Study;

/** A reading drawn as the window draws it: its curves, or one mark a lane for a number. */
interface Drawn {
    void on(Graphics2D g, double width, double height);

    /** Empty where no lane has a curve or a number. */
    static Optional<Drawn> of(Results results, Reading asked, Palette palette) {
        if (asked.curve()) {
            ReadingChart drawn =
                    ReadingChart.of(results.study(), results, asked, palette).complete();
            return drawn.curves().isEmpty()
                    ? Optional.empty()
                    : Optional.of((g, w, h) -> drawn.figure(g, r -> what(results.study(), r), w, h, palette));
        }
        NumberChart drawn = NumberChart.of(results.study(), results, asked, palette);
        return drawn.rows().isEmpty() ? Optional.empty() : Optional.of((g, w, h) -> drawn.paint(g, w, h, palette));
    }

    private static String what(Study from, Reading asked) {
        return asked.quantities().stream()
                .findFirst()
                .flatMap(from::quantity)
                .map(Quantity::name)
                .orElse(asked.name());
    }
}
