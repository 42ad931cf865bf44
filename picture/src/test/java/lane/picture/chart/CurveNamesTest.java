package lane.picture.chart;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.awt.geom.Point2D;
import java.awt.geom.Rectangle2D;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.DoubleUnaryOperator;
import org.junit.jupiter.api.Test;

/** Names of curves on a plot of 400 x 200 pixels. */
class CurveNamesTest {
    private static final Rectangle2D AREA = new Rectangle2D.Double(0, 0, 400, 200);
    private static final double WIDE = 30;

    private static CurveNames.Line line(DoubleUnaryOperator y) {
        double[] x = new double[41];
        Arrays.setAll(x, i -> 10.0 * i);
        return new CurveNames.Line(x, Arrays.stream(x).map(y).toArray());
    }

    private static List<Point2D> places(CurveNames.Line... all) {
        var names = new CurveNames(AREA, List.of(all));
        List<Point2D> out = new ArrayList<>();
        for (int k = 0; k < all.length; k++) {
            names.place(k, WIDE).ifPresent(out::add);
        }
        return out;
    }

    @Test
    void curvesThatLieApartAreNamedAtTheirEnds() {
        List<Point2D> at = places(line(x -> 50), line(x -> 100 + x / 10));
        assertThat(at).hasSize(2);
        assertThat(at.get(0).getX()).isCloseTo(400 - WIDE - 4, within(1e-9));
        assertThat(at.get(0).getY()).isCloseTo(47, within(1e-9));
        assertThat(at.get(1).getX()).isCloseTo(400 - WIDE - 4, within(1e-9));
        // Above a falling curve, so that it does not strike its name out.
        assertThat(at.get(1).getY()).isCloseTo(100 + (400 - WIDE - 4) / 10 - 3, within(1e-9));
    }

    /** Where two end at one place, one cannot tell whose name it is. */
    @Test
    void curvesThatMeetAreNamedWhereTheyLieApart() {
        CurveNames.Line falling = line(x -> 20 + x / 4);
        CurveNames.Line rising = line(x -> 190 - x / 6);
        List<Point2D> at = places(falling, rising);
        assertThat(at).hasSize(2);
        for (Point2D p : at) {
            assertThat(Math.abs(falling.at(p.getX()) - rising.at(p.getX()))).isGreaterThan(11);
        }
    }

    @Test
    void namesNeverStandOnOneAnother() {
        CurveNames.Line flat = line(x -> 80);
        List<Point2D> at = places(flat, flat, flat, flat);
        assertThat(at).hasSize(4);
        for (int a = 0; a < at.size(); a++) {
            for (int b = 0; b < a; b++) {
                assertThat(Math.abs(at.get(a).getX() - at.get(b).getX())).isGreaterThanOrEqualTo(WIDE);
            }
        }
    }

    @Test
    void aCurveThatEndsEarlyIsNamedWhereItEndsAndOneWithoutAHeightNowhere() {
        List<Point2D> at = places(line(x -> x <= 250 ? 60 : Double.NaN), line(x -> Double.NaN), line(x -> -5));
        assertThat(at).singleElement().satisfies(p -> assertThat(p.getX()).isCloseTo(250 - WIDE - 4, within(1e-9)));
    }
}
