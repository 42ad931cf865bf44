package lane.picture.chart;

import java.awt.Graphics2D;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import lane.base.LaneException;
import lane.check.Check;
import lane.check.CheckResult;
import lane.check.Difference;
import lane.picture.LaneStyle;
import lane.picture.Palette;
import lane.reading.Profile;
import lane.reading.Reading;
import lane.study.Results;
import lane.study.Source;
import lane.study.Study;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/**
 * What a chart of a reading shows: the curves of the lanes that are on, and their differences from the datum of its first check,
 * or of the study.
 *
 * @param lanes keys of the lanes, one for each curve
 * @param datum key of the source that the others are compared with
 * @param datumName blank where the datum has no curve
 * @param tolerance half of the band about zero in SI units; NaN for none
 * @param shown unit of the values
 * @param along unit of the abscissa
 */
public record ReadingChart(
        List<String> lanes,
        List<ProfileChart.Curve> curves,
        String datum,
        String datumName,
        double tolerance,
        Unit shown,
        Unit along) {
    /** Of the height, for the strip of differences. */
    public static final double STRIP = 0.32;

    public static ReadingChart of(Study study, Results results, Reading reading, Palette palette) {
        CheckResult result =
                check(study, reading).map(c -> results.checks().get(c.id())).orElse(null);
        String datumId = check(study, reading)
                .map(c -> c.rule().datum())
                .filter(d -> !d.isBlank())
                .orElse(study.datum());
        Profile datum = results.outcome(reading.id(), datumId) instanceof Profile p ? p : null;
        List<String> lanes = new ArrayList<>();
        List<ProfileChart.Curve> curves = new ArrayList<>();
        List<LaneStyle> styles = LaneStyle.of(study.sources(), palette);
        for (int i = 0; i < styles.size(); i++) {
            Source source = study.sources().get(i);
            if (!study.off().contains(source.id()) && results.outcome(reading.id(), source.id()) instanceof Profile p) {
                lanes.add(source.id());
                curves.add(new ProfileChart.Curve(
                        source.name(), styles.get(i), p, difference(p, datum, lane(result, source.id()))));
            }
        }
        return new ReadingChart(
                lanes,
                curves,
                datumId,
                datum == null ? "" : study.source(datumId).map(Source::name).orElse(""),
                tolerance(result),
                results.unit(reading.id()),
                curves.isEmpty()
                        ? Unit.UNKNOWN
                        : results.along(curves.getFirst().profile().abscissaUnit()));
    }

    /** The check that decides on the datum and the band: the first of the reading. */
    public static Optional<Check> check(Study study, Reading reading) {
        return study.checks().stream()
                .filter(c -> c.reading().equals(reading.id()))
                .findFirst();
    }

    private static CheckResult.@Nullable Lane lane(@Nullable CheckResult result, String source) {
        return result == null ? null : result.lanes().get(source);
    }

    /** As the check found it, where there is one. */
    private static @Nullable Difference difference(
            Profile p, @Nullable Profile datum, CheckResult.@Nullable Lane known) {
        if (datum == null || p.equals(datum)) {
            return null;
        }
        if (known != null) {
            return known.curve();
        }
        try {
            return Difference.of(p, datum);
        } catch (LaneException e) {
            return null;
        }
    }

    private static double tolerance(@Nullable CheckResult result) {
        return result == null
                ? Double.NaN
                : result.lanes().values().stream()
                        .filter(l -> l.curve() != null)
                        .mapToDouble(CheckResult.Lane::allowed)
                        .findFirst()
                        .orElse(Double.NaN);
    }

    /** The chart as it stands by itself, with the names of its lanes above. */
    public void figure(Graphics2D g, String quantity, double width, double height, Palette palette) {
        double above = Legend.height(g, curves, width);
        g.translate(0, above);
        ProfileChart.Layout made = chart(quantity, STRIP, palette).paint(g, width, height - above);
        g.translate(0, -above);
        Legend.paint(g, curves, width, made.curve().getX(), palette);
    }

    /**
     * The chart; there must be a curve.
     *
     * @param quantity what stands at the axis of values
     * @param strip share of the height for the differences
     */
    public ProfileChart chart(String quantity, double strip, Palette palette) {
        return new ProfileChart(
                curves,
                quantity,
                shown,
                along,
                curves.getFirst().profile().abscissaName(),
                tolerance,
                datumName,
                strip,
                palette);
    }
}
