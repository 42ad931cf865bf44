package lane.desk.readings;

import static org.assertj.core.api.Assertions.assertThat;

import java.awt.Color;
import java.util.List;
import lane.picture.LaneStyle;
import lane.picture.chart.ProfileChart;
import lane.provenance.Provenance;
import lane.reading.Profile;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;

/** What the cursor and the table beside a chart read of a curve: the warmth of a kiln over the minutes. */
class NearestTest {
    private static ProfileChart.Curve curve(boolean points, double[] x, double... y) {
        var profile =
                new Profile(x, y, List.of(), "time", Unit.of("s"), Unit.of("K"), false, y.length, "", Provenance.EMPTY);
        return new ProfileChart.Curve("kiln", new LaneStyle(Color.BLACK, 1, null, 0, !points, points), profile, null);
    }

    /** A lane that was written down for a part of the time says nothing of the rest. */
    @Test
    void besideItsEndsACurveHasNoValue() {
        ProfileChart.Curve c = curve(false, new double[] {10, 20, 40}, 300, 310, 350);
        assertThat(Nearest.value(c, 10)).isEqualTo(300);
        assertThat(Nearest.value(c, 30)).isEqualTo(330);
        assertThat(Nearest.value(c, Math.nextUp(40.0))).isEqualTo(350);
        assertThat(Nearest.value(c, 9.9)).isNaN();
        assertThat(Nearest.value(c, 41)).isNaN();
    }

    @Test
    void besideAGapThereIsNone() {
        ProfileChart.Curve c = curve(false, new double[] {0, 1, 2, 3}, 300, Double.NaN, 310, 320);
        assertThat(Nearest.value(c, 0.5)).isNaN();
        assertThat(Nearest.value(c, 1)).isNaN();
        assertThat(Nearest.value(c, 2.5)).isEqualTo(315);
    }

    @Test
    void aCurveThatRunsBackIsReadTheSame() {
        ProfileChart.Curve c = curve(false, new double[] {40, 20, 10}, 350, 310, 300);
        assertThat(Nearest.value(c, 30)).isEqualTo(330);
        assertThat(Nearest.value(c, 45)).isNaN();
    }

    @Test
    void measuredPointsHaveValuesNearThemselvesAlone() {
        ProfileChart.Curve c = curve(true, new double[] {0, 50, 100}, 300, 310, 320);
        assertThat(Nearest.value(c, 51)).isEqualTo(310);
        assertThat(Nearest.value(c, 70)).isNaN();
        assertThat(Nearest.value(c, 103)).isNaN();
    }
}
