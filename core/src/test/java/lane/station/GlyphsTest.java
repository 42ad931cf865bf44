package lane.station;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import lane.base.Work;
import lane.cut.Cut;
import lane.cut.Glyphs;
import lane.cut.PlaneCut;
import lane.cut.Stencil;
import lane.cut.Streamlines;
import lane.field.Field;
import lane.field.Values;
import lane.mesh.BoxMesh;
import lane.mesh.CellLocator;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.mesh.Point;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;

/** Tubes stand around their lines, arrows along the field; both carry the values of their places. */
class GlyphsTest {
    private final Mesh mesh = BoxMesh.of(CellShape.HEXAHEDRON, new int[] {4, 4, 4}, new double[] {1, 1, 1}, 0, 1);

    private Field along(double x, double y, double z) {
        double[] v = new double[3 * mesh.nodeCount()];
        for (int i = 0; i < v.length; i += 3) {
            double size = 1 + mesh.xyz()[i];
            v[i] = x * size;
            v[i + 1] = y * size;
            v[i + 2] = z * size;
        }
        return new Field("u", Field.At.NODE, 3, Unit.of("m/s"), Values.of(v));
    }

    @Test
    void tubesHaveTheirRadiusAndTheLinesValues() {
        Streamlines lines = Streamlines.of(
                new CellLocator(mesh),
                along(1, 0, 0),
                new double[] {0.5, 0.4, 0.6},
                Streamlines.Way.BOTH,
                1e-6,
                5,
                0.1,
                Work.QUIET);
        Cut tubes = Glyphs.tubes(lines, 0.02);
        Values u = tubes.stencil().apply(along(1, 0, 0));
        for (int i = 0; i < tubes.surface().nodeCount(); i++) {
            double[] x = tubes.surface().xyz();
            assertThat(Math.hypot(x[3 * i + 1] - 0.4, x[3 * i + 2] - 0.6)).isCloseTo(0.02, within(1e-12));
            assertThat(u.get(3 * i)).isCloseTo(1 + x[3 * i], within(1e-12));
        }
        assertThat(tubes.surface().bounds()[0]).isCloseTo(0, within(1e-5));
        assertThat(tubes.surface().bounds()[1]).isCloseTo(1, within(1e-5));
    }

    @Test
    void arrowsPointAlongTheFieldInProportionAndTangentialOnesLieInThePlane() {
        double[] places = {0, 0.5, 0.5, 1, 0.5, 0.5, 9, 9, 9};
        Placement at = Placer.points(new CellLocator(mesh), places, Work.QUIET);
        var stencil = new Stencil(at.start(), at.node(), at.share());
        Cut arrows = Glyphs.arrows(places, at.cell(), stencil, along(0, 0, 1), 0.1, null);
        // Two arrows of eleven corners; the third place is outside. The field doubles from one to the other.
        assertThat(arrows.surface().nodeCount()).isEqualTo(22);
        double[] x = arrows.surface().xyz();
        assertThat(x[3 * 10 + 2]).isCloseTo(0.55, within(1e-12));
        assertThat(x[3 * 21 + 2]).isCloseTo(0.6, within(1e-12));
        double[] normals = {0, 0, 1, 0, 0, 1, 0, 0, 1};
        Cut flat = Glyphs.arrows(places, at.cell(), stencil, along(0, 3, 1), 0.1, normals);
        assertThat(flat.surface().xyz()[3 * 21 + 2]).isCloseTo(0.5, within(1e-12));
        assertThat(flat.surface().xyz()[3 * 21 + 1]).isCloseTo(0.6, within(1e-12));
    }

    @Test
    void aReliefMovesEachNodeByItsValue() {
        Cut cut = PlaneCut.of(mesh, new Point(0, 0, 0.4), new Point(0, 0, 1), Work.QUIET);
        double[] v = new double[cut.surface().nodeCount()];
        for (int i = 0; i < v.length; i++) {
            v[i] = i == 0 ? Double.NaN : cut.surface().xyz()[3 * i];
        }
        Cut up = Glyphs.relief(cut, new Point(0, 0, 1), v, 0.5);
        for (int i = 0; i < v.length; i++) {
            double by = i == 0 ? 0 : 0.5 * v[i];
            assertThat(up.surface().xyz()[3 * i + 2]).isCloseTo(0.4 + by, within(1e-12));
        }
    }
}
