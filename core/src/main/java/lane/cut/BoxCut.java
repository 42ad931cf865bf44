package lane.cut;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import lane.base.Work;
import lane.field.Part;
import lane.field.PartBuilder;
import lane.field.Run;
import lane.mesh.Axis;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.mesh.Point;

/**
 * What bounds the part of a run that lies in a box, looking out of it: the sides of the box as far as they lie in the run, and
 * the boundary of the run as far as it lies in the box. Both are cut at the same edges of cells, so that the whole is closed
 * to round-off.
 */
public final class BoxCut {
    private BoxCut() {}

    /**
     * @param box least and greatest x, y and z in a frame, in metres; infinite for sides that there are not
     * @throws java.util.concurrent.CancellationException when cancelled
     */
    public static Cut of(Run run, double[] box, Axis frame, Work work) {
        Point[] along = {frame.zero(), frame.quarter(), frame.direction()};
        List<Cut> all = new ArrayList<>();
        for (int d = 0; d < 3; d++) {
            for (int side = 0; side < 2; side++) {
                double bound = box[2 * d + side];
                if (!Double.isInfinite(bound)) {
                    Point at = frame.origin().plus(along[d].times(bound));
                    Point out = along[d].times(side == 0 ? -1 : 1);
                    all.add(PlaneCut.within(PlaneCut.of(run.locator(work), at, out, work), box, frame));
                }
            }
        }
        Cut skin = PlaneCut.within(skin(run.mesh()), box, frame);
        all.add(skin.pick(offSides(skin, box, frame, along)));
        return Cut.join(all.stream().filter(c -> !c.empty()).toList());
    }

    /** The boundary of a mesh; a face with nodes on its edges is the polygon through them. */
    static Cut skin(Mesh mesh) {
        Part part = new PartBuilder(mesh).whole("");
        Mesh faces = part.surface();
        int n = faces.cellCount();
        int[] offsets = new int[n + 1];
        int[] nodes = new int[faces.nodes().length];
        byte[] shapes = new byte[n];
        int at = 0;
        for (int f = 0; f < n; f++) {
            int begin = faces.begin(f);
            CellShape shape = faces.shape(f);
            int corners = shape.corners() == CellShape.TRIANGLE ? 3 : shape.quadratic() ? 4 : faces.size(f);
            boolean pixel = shape == CellShape.PIXEL;
            for (int k = 0; k < corners; k++) {
                // The corners of a pixel go along rows, those of a polygon around.
                int corner = pixel && k > 1 ? 5 - k : k;
                nodes[at++] = faces.nodes()[begin + corner];
                if (shape.quadratic()) {
                    nodes[at++] = faces.nodes()[begin + corners + k];
                }
            }
            shapes[f] = (byte) CellShape.POLYGON.ordinal();
            offsets[f + 1] = at;
        }
        var stencil = new StencilBuilder(faces.nodeCount());
        for (int i = 0; i < faces.nodeCount(); i++) {
            stencil.add(part.node()[i], 1).next();
        }
        return new Cut(new Mesh(faces.xyz(), shapes, offsets, Arrays.copyOf(nodes, at)), part.owner(), stencil.build());
    }

    /** Faces that do not lie in a side of the box, which has them already. */
    private static int[] offSides(Cut skin, double[] box, Axis frame, Point[] along) {
        Mesh m = skin.surface();
        double zero = 1e-9 * m.modelSize();
        return java.util.stream.IntStream.range(0, m.cellCount())
                .filter(f -> {
                    for (int s = 0; s < 6; s++) {
                        boolean all = !Double.isInfinite(box[s]);
                        for (int k = 0; k < m.size(f) && all; k++) {
                            int v = 3 * m.nodes()[m.begin(f) + k];
                            Point own = new Point(m.xyz()[v], m.xyz()[v + 1], m.xyz()[v + 2]).minus(frame.origin());
                            all = Math.abs(own.dot(along[s / 2]) - box[s]) <= zero;
                        }
                        if (all) {
                            return false;
                        }
                    }
                    return true;
                })
                .toArray();
    }
}
