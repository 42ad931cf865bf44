package lane.picture.chart;

import java.awt.Color;
import java.awt.Graphics2D;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import lane.base.LaneException;
import lane.base.Parallel;
import lane.base.Work;
import lane.check.Check;
import lane.check.CheckResult;
import lane.check.Difference;
import lane.picture.LaneStyle;
import lane.picture.Palette;
import lane.reading.Profile;
import lane.reading.Reading;
import lane.study.ChartLook;
import lane.study.Results;
import lane.study.Source;
import lane.study.Study;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/**
 * What a chart of a reading shows: the curves of the lanes that are on, and their differences from the datum of its first check,
 * or of the study.
 *
 * @param reading whose chart it is
 * @param look how it is drawn
 * @param lanes keys of the lanes, one for each curve
 * @param aside thin curves that belong to one of them
 * @param datum key of the source that the others are compared with
 * @param datumName blank where the datum has no curve
 * @param against the datum's curve; null where it has none
 * @param tolerance half of the band about zero in SI units; NaN for none
 * @param shown unit of the values
 * @param along unit of the abscissa
 * @param shared least and greatest of all charts in that unit; null where the axis stands by itself
 * @param below the same of readings that stand beneath
 */
public record ReadingChart(
        Reading reading,
        ChartLook look,
        List<String> lanes,
        List<ProfileChart.Curve> curves,
        List<ProfileChart.Curve> aside,
        String datum,
        String datumName,
        @Nullable Profile against,
        double tolerance,
        Unit shown,
        Unit along,
        double @Nullable [] shared,
        List<ReadingChart> below) {
    /** Of the height, for the strip of differences. */
    public static final double STRIP = 0.32;

    /** So many curves of other times have names in a legend. */
    private static final int MOST_NAMED = 12;

    public static ReadingChart of(Study study, Results results, Reading reading, Palette palette) {
        ReadingChart one = one(study, results, reading, check(study, reading).orElse(null), palette);
        if (one.look.below().isEmpty() || one.curves.isEmpty()) {
            return one;
        }
        List<Reading> asked = one.look.below().stream()
                .flatMap(id -> study.reading(id).stream())
                .toList();
        List<ReadingChart> below = alike(study, results, reading, asked).stream()
                .map(r -> one(study, results, r, check(study, r).orElse(null), palette))
                .toList();
        return new ReadingChart(
                reading,
                one.look,
                one.lanes,
                one.curves,
                one.aside,
                one.datum,
                one.datumName,
                one.against,
                one.tolerance,
                one.shown,
                one.along,
                one.shared,
                below);
    }

    /** The curves that a check compares, from its own datum, with its tolerance; without what stands beneath them. */
    public static ReadingChart of(Study study, Results results, Reading reading, Check check, Palette palette) {
        return one(study, results, reading, check, palette);
    }

    /** Readings whose curves have the abscissa of one, so that they can stand beneath it. */
    public static List<Reading> alike(Study study, Results results, Reading one, List<Reading> others) {
        Profile a = first(study, results, one).orElse(null);
        return a == null
                ? List.of()
                : others.stream()
                        .filter(r -> first(study, results, r)
                                .filter(b -> a.abscissaName().equals(b.abscissaName())
                                        && a.abscissaUnit().comparable(b.abscissaUnit()))
                                .isPresent())
                        .toList();
    }

    private static Optional<Profile> first(Study study, Results results, Reading reading) {
        return study.sources().stream()
                .filter(s -> !study.off().contains(s.id()))
                .flatMap(s -> results.outcome(reading.id(), s.id()).curve().stream())
                .findFirst();
    }

    private static ReadingChart one(
            Study study, Results results, Reading reading, @Nullable Check check, Palette palette) {
        ChartLook look = study.chart(reading.id());
        CheckResult result = check == null ? null : results.checks().get(check.id());
        String datumId = check == null || check.rule().datum().isBlank()
                ? study.datum()
                : check.rule().datum();
        Profile datum = results.outcome(reading.id(), datumId) instanceof Profile p ? p : null;
        List<String> lanes = new ArrayList<>();
        List<ProfileChart.Curve> curves = new ArrayList<>();
        List<ProfileChart.Curve> aside = new ArrayList<>();
        List<LaneStyle> styles = LaneStyle.of(study.sources(), palette);
        boolean light = light(study, results, reading);
        List<String> names = Differing.parts(study.sources().stream()
                .filter(s -> !study.off().contains(s.id()) && results.outcome(reading.id(), s.id()) instanceof Profile)
                .map(Source::name)
                .toList());
        for (int i = 0; i < styles.size(); i++) {
            Source source = study.sources().get(i);
            if (!study.off().contains(source.id()) && results.outcome(reading.id(), source.id()) instanceof Profile p) {
                LaneStyle style = styles.get(i).looking(look.lanes().get(source.id()));
                // A log of many rows is a line: its points cannot be told apart.
                style = style.hollow() && p.size() > MOST_POINTS ? style.drawn() : style;
                String name = names.get(curves.size());
                lanes.add(source.id());
                curves.add(
                        new ProfileChart.Curve(name, style, p, difference(p, datum, lane(result, source.id()), light)));
                aside(name, style, p, palette, aside);
            }
        }
        Unit shown = results.unit(reading.id());
        return new ReadingChart(
                reading,
                look,
                lanes,
                curves,
                aside,
                datumId,
                datum == null ? "" : study.source(datumId).map(Source::name).orElse(""),
                datum,
                tolerance(result),
                shown,
                curves.isEmpty()
                        ? Unit.UNKNOWN
                        : results.along(curves.getFirst().profile().abscissaUnit()),
                look.y().shared() ? shared(study, results, shown) : null,
                List.of());
    }

    /** More points than these are drawn as a line where they are measured. */
    private static final int MOST_POINTS = 150;

    private static void aside(String name, LaneStyle of, Profile p, Palette palette, List<ProfileChart.Curve> into) {
        int n = p.beside().size();
        for (int k = 0; k < n; k++) {
            Profile.Beside b = p.beside().get(k);
            // Times fade the longer they are gone.
            Color faded = mix(palette.sheet(), of.colour(), 0.35 + 0.5 * (k + 1) / (n + 1));
            var style = new LaneStyle(faded, 1.2f, null, 2, true, false);
            var profile = new Profile(
                    p.abscissa(),
                    b.value(),
                    List.of(),
                    p.abscissaName(),
                    p.abscissaUnit(),
                    p.unit(),
                    false,
                    p.found(),
                    "",
                    p.trail());
            into.add(new ProfileChart.Curve(name + ", " + b.name(), style, profile, null));
        }
    }

    private static Color mix(Color a, Color b, double f) {
        return new Color(
                (int) Math.round(a.getRed() + f * (b.getRed() - a.getRed())),
                (int) Math.round(a.getGreen() + f * (b.getGreen() - a.getGreen())),
                (int) Math.round(a.getBlue() + f * (b.getBlue() - a.getBlue())));
    }

    /** Least and greatest of all curves of the study that are told in such a unit. */
    private static double @Nullable [] shared(Study study, Results results, Unit unit) {
        double least = Double.POSITIVE_INFINITY;
        double greatest = Double.NEGATIVE_INFINITY;
        for (Reading r : study.readings()) {
            for (Source s : study.sources()) {
                if (!study.off().contains(s.id())
                        && results.outcome(r.id(), s.id()) instanceof Profile p
                        && p.unit().comparable(unit)) {
                    for (double v : p.value()) {
                        if (Double.isFinite(v)) {
                            least = Math.min(least, v);
                            greatest = Math.max(greatest, v);
                        }
                    }
                }
            }
        }
        return least < greatest ? new double[] {least, greatest} : null;
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

    /** As the check found it, where there is one; else found now, if that is light. */
    private static @Nullable Difference difference(
            Profile p, @Nullable Profile datum, CheckResult.@Nullable Lane known, boolean light) {
        return datum == null || p.equals(datum)
                ? null
                : known != null ? known.curve() : light ? difference(p, datum) : null;
    }

    private static @Nullable Difference difference(Profile p, Profile datum) {
        try {
            return Difference.of(p, datum);
        } catch (LaneException e) {
            return null;
        }
    }

    /** Whether the curves are so few and so short that a chart can wait for their differences. */
    private static boolean light(Study study, Results results, Reading reading) {
        long points = 0;
        int n = 0;
        for (Source s : study.lanes()) {
            if (results.outcome(reading.id(), s.id()) instanceof Profile p) {
                points += p.size();
                n++;
            }
        }
        return n <= MOST_COMPARED && points <= LIGHT;
    }

    /** More differences than these cannot be told apart in a strip. */
    private static final int MOST_COMPARED = 60;

    private static final int LIGHT = 200_000;

    /** Whether there are differences that were not found yet, since that takes a while. */
    public boolean uncompared() {
        return against != null
                && !light(curves)
                && curves.stream()
                        .anyMatch(c -> c.difference() == null && !c.profile().equals(against));
    }

    private static boolean light(List<ProfileChart.Curve> curves) {
        return curves.size() <= MOST_COMPARED
                && curves.stream().mapToLong(c -> c.profile().size()).sum() <= LIGHT;
    }

    /**
     * How far a curve is from the datum, in SI units, as {@link Difference} says.
     *
     * @param signed the largest difference with its sign
     */
    public record Norms(double l2, double datumRange, double signed, double linfAt) {
        public static Norms of(Difference d) {
            return new Norms(d.l2(), d.datumRange(), d.signed(), d.linfAt());
        }
    }

    /**
     * The chart with the differences of its curves, of not too many, and how far each is from the datum.
     *
     * @param norms one a curve; empty for the datum and for what cannot be compared with it
     */
    public record Compared(ReadingChart chart, List<Optional<Norms>> norms) {
        /** The same differences, in a chart of the same curves that may look otherwise by now. */
        public Compared of(ReadingChart other) {
            List<ProfileChart.Curve> with = new ArrayList<>();
            for (int i = 0; i < other.curves.size(); i++) {
                ProfileChart.Curve c = other.curves.get(i);
                with.add(new ProfileChart.Curve(
                        c.name(), c.style(), c.profile(), chart.curves.get(i).difference()));
            }
            return new Compared(other.with(with), norms);
        }
    }

    private ReadingChart with(List<ProfileChart.Curve> other) {
        return new ReadingChart(
                reading, look, lanes, other, aside, datum, datumName, against, tolerance, shown, along, shared, below);
    }

    /** For whoever can wait: with the differences of its curves, if these are not too many. */
    public ReadingChart complete() {
        return uncompared() && curves.size() <= MOST_COMPARED
                ? compared(Work.QUIET).chart()
                : this;
    }

    /**
     * Finds all differences, on all cores.
     *
     * @throws java.util.concurrent.CancellationException when cancelled
     */
    public Compared compared(Work work) {
        boolean drawn = curves.size() <= MOST_COMPARED;
        var found = new Difference[curves.size()];
        List<Optional<Norms>> norms = new ArrayList<>(Collections.nCopies(curves.size(), Optional.empty()));
        Parallel.forBlocks(curves.size(), 1, (b, i, end) -> {
            work.poll();
            ProfileChart.Curve c = curves.get(i);
            Difference d = c.difference();
            if (d == null && against != null && !c.profile().equals(against)) {
                d = difference(c.profile(), against);
            }
            if (d != null) {
                norms.set(i, Optional.of(Norms.of(d)));
                // Of a thousand long curves they would take more room than the curves.
                found[i] = drawn ? d : null;
            }
        });
        List<ProfileChart.Curve> with = new ArrayList<>();
        for (int i = 0; i < found.length; i++) {
            ProfileChart.Curve c = curves.get(i);
            with.add(new ProfileChart.Curve(c.name(), c.style(), c.profile(), found[i]));
        }
        return new Compared(with(with), List.copyOf(norms));
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

    /** The curves that a legend names. */
    public List<ProfileChart.Curve> named() {
        List<ProfileChart.Curve> all = new ArrayList<>(curves);
        if (aside.size() <= MOST_NAMED) {
            all.addAll(aside);
        }
        return all;
    }

    /**
     * The chart as it stands by itself, with the names of its lanes above unless they stand within.
     *
     * @param what says what stands at the axis of values of a reading
     */
    public void figure(Graphics2D g, Function<Reading, String> what, double width, double height, Palette palette) {
        double f = look.text().factor();
        double above = look.legend() == null ? f * Legend.height(g, named(), width / f) : 0;
        g.translate(0, above);
        ChartLayout made = chart(what, STRIP, ProfileChart.View.ALL, palette).paint(g, width, height - above);
        g.translate(0, -above);
        if (look.legend() == null) {
            var before = g.getTransform();
            g.scale(f, f);
            Legend.paint(g, named(), width / f, made.curve().getX() / f, palette);
            g.setTransform(before);
        }
    }

    /**
     * The chart; there must be a curve.
     *
     * @param what says what stands at the axis of values of a reading
     * @param strip share of the height for the differences
     */
    public ProfileChart chart(Function<Reading, String> what, double strip, ProfileChart.View view, Palette palette) {
        List<ProfileChart.Panel> panels = new ArrayList<>(List.of(panel(what)));
        below.forEach(b -> panels.add(b.panel(what)));
        return new ProfileChart(panels, along, curves.getFirst().profile().abscissaName(), strip, look, view, palette);
    }

    private ProfileChart.Panel panel(Function<Reading, String> what) {
        return new ProfileChart.Panel(what.apply(reading), shown, curves, aside, tolerance, datumName, shared);
    }
}
