package lane.picture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.awt.Color;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.Random;
import lane.check.Difference;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.mesh.Point;
import lane.picture.chart.ChartLayout;
import lane.picture.chart.ProfileChart;
import lane.picture.field.Annotations;
import lane.picture.field.Camera;
import lane.picture.field.ColourScale;
import lane.picture.field.DrawnFrame;
import lane.picture.field.Look;
import lane.picture.field.Range;
import lane.picture.field.Rasteriser;
import lane.picture.field.Scene;
import lane.provenance.Provenance;
import lane.reading.Profile;
import lane.study.Source;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Pictures are tested by reading pixels and picks. */
class PictureTest {
    private static final Look FLAT = new Look(ColourScale.SIZE, 0, 1, false, false, false);
    private static final int GROUND = 0xFBFAF6;

    /** A square in the plane y = depth, seen from the front, with the value x at its nodes. */
    private static Scene.Surface square(String name, double depth, double from, double to, double opacity) {
        double[] xyz = {from, depth, from, to, depth, from, to, depth, to, from, depth, to};
        Mesh mesh = Mesh.uniform(xyz, CellShape.QUAD, new int[] {0, 1, 2, 3});
        return Scene.surface(
                name, mesh, new float[] {(float) from, (float) to, (float) to, (float) from}, true, opacity);
    }

    private static Camera front(double scale) {
        return new Camera(new Point(0.5, 0, 0.5), 0, 0, scale);
    }

    private static DrawnFrame draw(Look look, Scene.Surface... surfaces) {
        return Rasteriser.draw(new Scene(List.of(surfaces)), front(100), look, 200, 200, GROUND);
    }

    @Test
    void aSquareCoversExactlyItsPixelsOnceAndIsColouredByItsValue() {
        DrawnFrame frame = draw(FLAT, square("a", 0, 0, 1, 1));
        int covered = 0;
        for (int y = 0; y < 200; y++) {
            for (int x = 0; x < 200; x++) {
                boolean inside = x >= 50 && x < 150 && y >= 50 && y < 150;
                int pixel = frame.argb()[y * 200 + x];
                if (inside) {
                    covered++;
                    assertThat(pixel).isEqualTo(ColourScale.SIZE.colour((x + 0.5 - 50) / 100));
                } else {
                    assertThat(pixel).isEqualTo(0xFF000000 | GROUND);
                }
            }
        }
        assertThat(covered).isEqualTo(10_000);
    }

    @Test
    void theNearerSurfaceHidesTheFartherInAnyOrder() {
        Scene.Surface near = square("near", -1, 0.25, 0.75, 1);
        Scene.Surface far = square("far", 1, 0, 1, 1);
        for (DrawnFrame f : List.of(draw(FLAT, near, far), draw(FLAT, far, near))) {
            assertThat(f.at(100, 100).orElseThrow().name()).isEqualTo("near");
            assertThat(f.at(60, 60).orElseThrow().name()).isEqualTo("far");
            assertThat(f.at(10, 10)).isEmpty();
            assertThat(f.at(-1, 300)).isEmpty();
        }
    }

    @Test
    void picksGiveThePlaceInDoublePrecision() {
        DrawnFrame frame = draw(FLAT, square("a", 0.3, 0, 1, 1));
        DrawnFrame.Hit hit = frame.at(75, 120).orElseThrow();
        assertThat(hit.place().x()).isCloseTo(0.255, within(1e-12));
        assertThat(hit.place().y()).isCloseTo(0.3, within(1e-12));
        assertThat(hit.place().z()).isCloseTo(0.295, within(1e-12));
        assertThat(hit.face()).isZero();
    }

    @Test
    void aTransparentSurfaceLetsTheOneBehindShowAndBePicked() {
        Scene.Surface glass = square("glass", -1, 0, 1, 0.5);
        Scene.Surface wall = square("wall", 1, 0, 1, 1);
        DrawnFrame frame = draw(FLAT, glass, wall);
        assertThat(frame.at(100, 100).orElseThrow().name()).isEqualTo("wall");
        DrawnFrame alone = draw(FLAT, glass);
        assertThat(alone.at(100, 100).orElseThrow().name()).isEqualTo("glass");
        Color through = new Color(alone.argb()[100 * 200 + 100]);
        Color paint = new Color(ColourScale.SIZE.colour(0.505));
        assertThat(through.getRed()).isCloseTo((0xFB + paint.getRed()) / 2, within(2));
    }

    @Test
    void everyPixelOfAClosedBoxIsDrawnFromAnySideAndEdgesOnlyDarken() {
        Mesh mesh = BoxMesh.of(CellShape.HEXAHEDRON, new int[] {5, 4, 3}, new double[] {1, 1, 1}, 0.2, 3);
        var part = new lane.field.PartBuilder(mesh).whole("skin");
        Scene scene = new Scene(List.of(Scene.surface("skin", part.surface(), new float[0], true, 1)));
        var random = new Random(2);
        for (int k = 0; k < 20; k++) {
            Camera camera = Camera.fit(mesh.bounds(), 160, 120, 7 * random.nextDouble(), 3 * random.nextDouble() - 1.5);
            DrawnFrame plain = Rasteriser.draw(scene, camera, FLAT, 160, 120, GROUND);
            // A crack between triangles would let a ground pixel stand between drawn ones of a row.
            for (int y = 0; y < 120; y++) {
                int first = -1;
                int last = -1;
                int drawn = 0;
                for (int x = 0; x < 160; x++) {
                    if (plain.at(x, y).isPresent()) {
                        first = first < 0 ? x : first;
                        last = x;
                        drawn++;
                    }
                }
                assertThat(drawn).isEqualTo(first < 0 ? 0 : last - first + 1);
            }
            DrawnFrame edged = Rasteriser.draw(
                    scene, camera, new Look(ColourScale.SIZE, 0, 1, false, true, false), 160, 120, GROUND);
            assertThat(edged.keys()).isEqualTo(plain.keys());
            assertThat(edged.argb()).isNotEqualTo(plain.argb());
        }
    }

    @Test
    void bandsHaveOneColourEachAndLinesBetweenThem() {
        // Values run from 0 at the left to 1 at the right.
        Scene.Surface s = square("a", 0, 0, 1, 1);
        float[] v = new float[s.xyz().length / 3];
        for (int i = 0; i < v.length; i++) {
            v[i] = (float) s.xyz()[3 * i];
        }
        var ramp = new Scene.Surface("a", s.xyz(), s.corners(), s.face(), v, true, 1, s.edge(), false);
        var bands = new Look(ColourScale.SIZE, 0, 1, false, false, false, new Look.Style(4, false, false, true));
        int[] row = java.util.Arrays.copyOfRange(draw(bands, ramp).argb(), 100 * 200, 101 * 200);
        var colours = new java.util.TreeMap<Integer, Integer>();
        for (int c : row) {
            colours.merge(c, 1, Integer::sum);
        }
        // Four bands, three lines of one pixel between them, and the ground.
        for (int b = 0; b < 4; b++) {
            assertThat(colours.get(ColourScale.SIZE.colour((b + 0.5) / 4))).isGreaterThan(15);
        }
        assertThat(colours.values().stream().filter(n -> n == 1)).hasSize(3);
        // Narrower ends leave both sides outside, in colours of their own; a logarithm needs positive ends.
        var narrow = new Look(ColourScale.SIZE, 0.4, 0.6, false, false, false, new Look.Style(0, false, true, true));
        int[] out = draw(narrow, ramp).argb();
        assertThat(ColourScale.SIZE.colour(0)).isNotEqualTo(out[100 * 200 + 60]);
        assertThat(narrow.share(Math.sqrt(0.4 * 0.6))).isCloseTo(0.5, within(1e-12));
        assertThat(narrow.value(narrow.share(0.45))).isCloseTo(0.45, within(1e-12));
        assertThat(new Look(ColourScale.SIZE, -1, 1, false, false, false, new Look.Style(0, false, true, true)).log())
                .isFalse();
        // The value at a pixel is kept.
        var frame = draw(FLAT, ramp);
        var hit = frame.at(100, 100).orElseThrow();
        assertThat(frame.value(100, 100)).isCloseTo(hit.place().x(), within(1e-6));
    }

    @Test
    void whatIsCutAwayShowsWhatStandsBehindIt() {
        // Two squares behind each other; the front one is cut away where x is above the middle.
        Scene.Surface front = square("front", 0, 0, 1, 1);
        double[] back = front.xyz().clone();
        for (int i = 0; i < back.length; i += 3) {
            back[i + 1] += 0.5;
        }
        var behind = new Scene.Surface(
                "behind", back, front.corners(), front.face(), front.value(), front.byNode(), 1, front.edge(), true);
        var away = Scene.Away.before(new Point(0.5, 0, 0), new Point(1, 0, 0));
        var frame =
                Rasteriser.draw(new Scene(List.of(front, behind), List.of(away)), front(100), FLAT, 200, 200, GROUND);
        var names = new java.util.HashSet<String>();
        for (int x = 0; x < 200; x++) {
            frame.at(x, 100).ifPresent(h -> {
                names.add(h.name());
                assertThat(h.name().equals("front")).isEqualTo(h.place().x() <= 0.5);
            });
        }
        assertThat(names).containsExactlyInAnyOrder("front", "behind");
    }

    @Test
    void theRangeIsWholeOrRobustAndSignedOnlyWithTwoSigns() {
        float[] v = new float[1001];
        for (int i = 0; i <= 1000; i++) {
            v[i] = i;
        }
        v[1000] = 1e9f;
        assertThat(Range.of(List.of(v), Range.Kind.WHOLE).greatest()).isEqualTo(1e9);
        Range robust = Range.of(List.of(v, new float[] {Float.NaN}), Range.Kind.ROBUST);
        assertThat(robust.least()).isCloseTo(20, within(1.0));
        assertThat(robust.greatest()).isCloseTo(980, within(1.0));
        assertThat(Range.about(-1, 3)).isEqualTo(new Range(-3, 3, true));
        assertThat(Range.about(-1e-9, 3).signed()).isFalse();
        assertThat(Range.of(List.of(), Range.Kind.WHOLE)).isEqualTo(new Range(0, 1, false));
    }

    @Test
    void missingValuesAreNotColouredAsIfTheyWereThere() {
        Scene.Surface s = square("a", 0, 0, 1, 1);
        var holed = new Scene.Surface(
                "a", s.xyz(), s.corners(), s.face(), new float[] {Float.NaN}, false, 1, s.edge(), false);
        int pixel = draw(FLAT, holed).argb()[100 * 200 + 100];
        for (int i = 0; i <= 100; i++) {
            assertThat(pixel).isNotEqualTo(ColourScale.SIZE.colour(i / 100.0));
        }
    }

    @Test
    void theSizeScaleDarkensEvenlyAndTheSignedOneIsCentred() {
        double before = 2;
        for (int i = 0; i <= 8; i++) {
            Color c = new Color(ColourScale.SIZE.colour(i / 8.0));
            double light = 0.2126 * Math.pow(c.getRed() / 255.0, 2.2)
                    + 0.7152 * Math.pow(c.getGreen() / 255.0, 2.2)
                    + 0.0722 * Math.pow(c.getBlue() / 255.0, 2.2);
            assertThat(light).isLessThan(before);
            before = light;
        }
        assertThat(new Color(ColourScale.SIZE.colour(0))).isEqualTo(new Color(0xFAEED1));
        assertThat(new Color(ColourScale.SIZE.colour(7))).isEqualTo(new Color(0x1B2D48));
        Color middle = new Color(ColourScale.SIGNED.colour(0.5));
        assertThat(middle.getRed()).isCloseTo(middle.getBlue(), within(4));
    }

    @Test
    void theCameraKeepsThePlaceUnderThePointerWhileZoomingAndMoving() {
        Camera c = new Camera(new Point(1, 2, 3), 0.7, 0.4, 250);
        Point under = c.place(300, 80, 0.5, 640, 480);
        double[] p = new double[3];
        c.project(under.x(), under.y(), under.z(), 640, 480, p);
        assertThat(p).containsExactly(new double[] {300, 80, 0.5}, within(1e-9));
        c.zoomed(3, 300, 80, 640, 480).project(under.x(), under.y(), under.z(), 640, 480, p);
        assertThat(p[0]).isCloseTo(300, within(1e-9));
        assertThat(p[1]).isCloseTo(80, within(1e-9));
        c.moved(10, -20).project(under.x(), under.y(), under.z(), 640, 480, p);
        assertThat(p[0]).isCloseTo(310, within(1e-9));
        assertThat(p[1]).isCloseTo(60, within(1e-9));
        assertThat(c.turned(0, 9).pitch()).isEqualTo(Math.PI / 2);
    }

    @ParameterizedTest
    @CsvSource({
        "23.37512, 0.048, 23.375",
        "-0.00123456, NaN, −0.00123456",
        "314.15, 0.15, 314.15",
        "12345.678, NaN, 12\u202f345.7",
        "1e-9, NaN, 1·10⁻⁹",
        "0, NaN, 0",
        "NaN, NaN, –"
    })
    void numbersShowTheDigitsTheyDeserve(double v, double u, String text) {
        assertThat(Ticks.number(v, u)).isEqualTo(text);
    }

    @Test
    void ticksAreRoundAndInside() {
        assertThat(Ticks.of(0.13, 0.97, 7)).containsExactly(new double[] {0.2, 0.4, 0.6, 0.8}, within(1e-12));
        assertThat(Ticks.of(5, 5, 7)).containsExactly(5);
        assertThat(Ticks.of(-1e-9, 1e-9, 5)).hasSizeBetween(3, 6);
    }

    private static Profile profile(double[] x, double[] y) {
        return new Profile(
                x,
                y,
                java.util.List.of(),
                "radius",
                Unit.of("m"),
                Unit.of("m/s"),
                false,
                x.length,
                "",
                Provenance.EMPTY);
    }

    private static ProfileChart chart(double[] y) {
        double[] x = new double[y.length];
        double[] zero = new double[y.length];
        java.util.Arrays.setAll(x, i -> 0.03 + 0.006 * i / (y.length - 1));
        var sources = List.<Source>of(
                new Source.Simulation("a", "fine", "a", List.of(), "", ""),
                new Source.Reference("t", "theory", Source.Kind.THEORY, List.of(), Map.of(), List.of()));
        var styles = LaneStyle.of(sources, Palette.LIGHT);
        Profile datum = profile(x, zero);
        Profile curve = profile(x, y);
        return new ProfileChart(
                List.of(
                        new ProfileChart.Curve("fine", styles.get(0), curve, Difference.of(curve, datum)),
                        new ProfileChart.Curve("theory", styles.get(1), datum, null)),
                "swirl speed",
                Unit.of("m/s"),
                Unit.of("mm"),
                "radius",
                0.5,
                "theory",
                0.3,
                Palette.LIGHT);
    }

    @Test
    void aSingleSpikeAmongAHundredThousandPointsIsNotLost() {
        double[] y = new double[100_000];
        y[54_321] = 1;
        var layout = new ChartLayout[1];
        ProfileChart chart = chart(y);
        BufferedImage image = Export.image(640, 480, 1, g -> layout[0] = chart.paint(g, 640, 480));
        double x = layout[0].curve().getX() + layout[0].curve().getWidth() * 54_321 / 99_999.0;
        int lane = Palette.LIGHT.family()[2].getRGB();
        boolean found = false;
        int top = (int) (layout[0].curve().getY() + 0.3 * layout[0].curve().getHeight());
        for (int px = (int) x - 2; px <= x + 3; px++) {
            Color c = new Color(image.getRGB(px, top));
            found |= Math.abs(c.getBlue() - new Color(lane).getBlue()) < 60 && c.getRed() < 150;
        }
        assertThat(found).isTrue();
        assertThat(layout[0].abscissa(layout[0].curve().getMinX())).isCloseTo(30, within(1e-9));
        assertThat(layout[0].abscissa(layout[0].curve().getMaxX())).isCloseTo(36, within(1e-9));
    }

    @Test
    void withoutADatumTheCurvesTakeTheWholeHeight() throws Exception {
        double[] x = {0.03, 0.033, 0.036};
        var source = List.<Source>of(new Source.Simulation("a", "fine", "a", List.of(), "", ""));
        var curve = new ProfileChart.Curve(
                "fine", LaneStyle.of(source, Palette.LIGHT).getFirst(), profile(x, new double[] {1, 2, 1}), null);
        var alone = new ProfileChart(
                List.of(curve),
                "swirl speed",
                Unit.of("m/s"),
                Unit.of("mm"),
                "radius",
                Double.NaN,
                "",
                0.3,
                Palette.LIGHT);
        var layout = new ChartLayout[2];
        var out = new ByteArrayOutputStream();
        Export.svg(640, 480, g -> layout[0] = alone.paint(g, 640, 480), out);
        Export.image(
                640, 480, 1, g -> layout[1] = chart(new double[] {0, 0.2, 0.4}).paint(g, 640, 480));
        assertThat(layout[0].strip().getHeight()).isZero();
        assertThat(layout[0].curve().getHeight())
                .isGreaterThan(1.3 * layout[1].curve().getHeight());
        assertThat(layout[0].curve().getMaxY()).isCloseTo(layout[1].strip().getMaxY(), within(0.5));
        assertThat(out.toString(StandardCharsets.UTF_8)).contains("swirl speed").doesNotContain("difference");
    }

    @Test
    void svgKeepsTextAsText() throws Exception {
        var out = new ByteArrayOutputStream();
        ProfileChart chart = chart(new double[] {0, 0.2, 0.4});
        Export.svg(640, 480, g -> chart.paint(g, 640, 480), out);
        String svg = out.toString(StandardCharsets.UTF_8);
        assertThat(svg)
                .startsWith("<svg")
                .contains("radius, mm")
                .contains("difference from theory")
                .contains("tolerance ± 0.5 m/s");
        var field = new ByteArrayOutputStream();
        Export.svg(
                300,
                300,
                g -> Annotations.paint(
                        g,
                        front(100),
                        300,
                        300,
                        Annotations.Over.of(
                                List.of(new Annotations.Line(
                                        "Gap",
                                        List.of(List.of(new Point(0, 0, 0), new Point(1, 0, 1))),
                                        List.of(),
                                        new boolean[0],
                                        true,
                                        List.of())),
                                new Annotations.Bar("swirl speed", "m/s", 0, 1.5, ColourScale.SIZE, "size scale")),
                        Palette.LIGHT),
                field);
        assertThat(field.toString(StandardCharsets.UTF_8))
                .contains("swirl speed")
                .contains("m/s")
                .contains("Gap");
    }

    @Test
    void lanesOfAFamilyGoFromLightToDarkAndNeverShareAMarker() {
        var three = new java.util.ArrayList<Source>();
        for (String n : List.of("a", "b", "c")) {
            three.add(new Source.Simulation(n, n, n, List.of(), "", "f"));
        }
        List<LaneStyle> styles = LaneStyle.of(three, Palette.LIGHT);
        assertThat(styles).extracting(LaneStyle::corners).containsExactly(3, 4, 6);
        assertThat(styles).extracting(s -> s.colour()).containsExactly(Palette.LIGHT.family());
        for (int n = 4; n < 40; n++) {
            three.add(new Source.Simulation("s" + n, "s", "s", List.of(), "", n % 2 == 0 ? "f" : "g"));
        }
        assertThat(LaneStyle.of(three, Palette.DARK)).hasSize(39).doesNotContainNull();
    }
}
