package lane.cut;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import lane.base.Parallel;
import lane.base.Sum;
import lane.base.Work;
import lane.mesh.Cell;
import lane.mesh.CellLocator;
import lane.mesh.Mesh;
import lane.mesh.Point;
import lane.mesh.Roundness;
import org.jspecify.annotations.Nullable;

/**
 * A surface from elsewhere laid into a run: conformed, that is cut where it passes from cell to cell, or sampled at its
 * own nodes. Cells with plane faces are cut by these; others fall into tetrahedra about the means of faces and cell, the
 * same for both cells of a face, so pieces neither overlap nor leave gaps. A piece that lies in a face of the mesh belongs
 * to the cell with the smaller number.
 *
 * @param cut what lies inside; a face of the sheet in several cells gives several faces
 * @param origin the face of the sheet that each comes from
 * @param area of the whole sheet, in square metres
 * @param outside area of what lies outside
 * @param place in a face that lies outside most; null where none does
 */
public record LaidSheet(
        Cut cut,
        int[] origin,
        double area,
        double outside,
        @Nullable Point place) {
    private static final int BLOCK = 64;
    /** Shares of a face below this count as round-off. */
    private static final double NOTHING = 1e-9;

    /** Share of the sheet that lies inside. */
    public double coverage() {
        return area == 0 ? 0 : 1 - outside / area;
    }

    /** What one thread makes of some faces. */
    private static final class Made {
        private double[] xyz = new double[96];
        private int points;
        private int[] ends = new int[16];
        private int[] owner = new int[16];
        private int[] origin = new int[16];
        private int faces;
        private final StencilBuilder stencil = new StencilBuilder(32);

        void point(double x, double y, double z) {
            if (3 * points + 3 > xyz.length) {
                xyz = Arrays.copyOf(xyz, 2 * xyz.length);
            }
            xyz[3 * points] = x;
            xyz[3 * points + 1] = y;
            xyz[3 * points++ + 2] = z;
        }

        void face(int cell, int from) {
            if (faces == ends.length) {
                ends = Arrays.copyOf(ends, 2 * faces);
                owner = Arrays.copyOf(owner, 2 * faces);
                origin = Arrays.copyOf(origin, 2 * faces);
            }
            ends[faces] = points;
            owner[faces] = cell;
            origin[faces++] = from;
        }
    }

    /** @throws java.util.concurrent.CancellationException when cancelled */
    public static LaidSheet conformed(CellLocator locator, Mesh sheet, Work work) {
        return conformed(locator, sheet, null, work);
    }

    /** @param round the cylinder that the corners of pieces are moved to before values are looked up; null for none */
    static LaidSheet conformed(CellLocator locator, Mesh sheet, @Nullable Roundness round, Work work) {
        int n = sheet.cellCount();
        double[] covered = new double[n];
        var made = new Made[Parallel.blocks(n, BLOCK)];
        Parallel.forBlocks(n, BLOCK, (block, from, to) -> {
            work.poll();
            var cutter = new SheetCutter(locator);
            var own = new Made();
            double[] place = new double[3];
            for (int f = from; f < to; f++) {
                covered[f] = cutter.face(sheet, f, (cell, polygon, count, view) -> {
                    for (int k = 0; k < count; k++) {
                        System.arraycopy(polygon, 3 * k, place, 0, 3);
                        if (round != null) {
                            round.onto(place, new double[3]);
                        }
                        own.point(place[0], place[1], place[2]);
                        view.locate(place[0], place[1], place[2]);
                        for (int v = 0; v < view.size(); v++) {
                            own.stencil.add(view.node(v), view.weights()[v]);
                        }
                        own.stencil.next();
                    }
                    own.face(cell, cutter.current());
                });
            }
            made[block] = own;
        });
        return finish(sheet, covered, Arrays.asList(made), round);
    }

    /** Values at the sheet's own nodes; a face with a node outside lies outside. */
    public static LaidSheet sampled(CellLocator locator, Mesh sheet, double tolerance, Work work) {
        int n = sheet.nodeCount();
        int[] cell = new int[n];
        var stencils = new Stencil[Parallel.blocks(n, 2048)];
        Parallel.forBlocks(n, 2048, (block, from, to) -> {
            work.poll();
            var finder = locator.finder();
            var own = new StencilBuilder(8 * (to - from));
            for (int i = from; i < to; i++) {
                double[] x = sheet.xyz();
                cell[i] = finder.find(x[3 * i], x[3 * i + 1], x[3 * i + 2], tolerance);
                for (int v = 0; cell[i] >= 0 && v < finder.cell().size(); v++) {
                    own.add(finder.cell().node(v), finder.cell().weights()[v]);
                }
                own.next();
            }
            stencils[block] = own.build();
        });
        double[] covered = new double[sheet.cellCount()];
        List<Integer> kept = new ArrayList<>();
        int[] owner = new int[sheet.cellCount()];
        var view = new Cell(sheet);
        for (int f = 0; f < owner.length; f++) {
            boolean in = true;
            for (int k = 0; k < sheet.size(f); k++) {
                int c = cell[sheet.nodes()[sheet.begin(f) + k]];
                in &= c >= 0;
                owner[f] = c;
            }
            if (in) {
                covered[f] = view.load(f).measure();
                kept.add(f);
            }
        }
        var joined = new StencilBuilder(n);
        for (Stencil s : stencils) {
            for (int i = 0; i < s.size(); i++) {
                joined.copy(s, i, 1).next();
            }
        }
        int[] faces = kept.stream().mapToInt(i -> i).toArray();
        Cut cut = new Cut(sheet, owner, joined.build()).pick(faces);
        return measured(sheet, covered, cut, faces);
    }

    private static LaidSheet finish(Mesh sheet, double[] covered, List<Made> blocks, @Nullable Roundness round) {
        int points = blocks.stream().mapToInt(m -> m.points).sum();
        int faces = blocks.stream().mapToInt(m -> m.faces).sum();
        double[] xyz = new double[3 * points];
        byte[] shapes = new byte[faces];
        int[] offsets = new int[faces + 1];
        int[] owner = new int[faces];
        int[] origin = new int[faces];
        int[] nodes = new int[points];
        Arrays.setAll(nodes, i -> i);
        var stencil = new StencilBuilder(points);
        int point = 0;
        int face = 0;
        for (Made m : blocks) {
            System.arraycopy(m.xyz, 0, xyz, 3 * point, 3 * m.points);
            Stencil own = m.stencil.build();
            for (int i = 0; i < m.points; i++) {
                stencil.copy(own, i, 1).next();
            }
            for (int f = 0; f < m.faces; f++) {
                owner[face] = m.owner[f];
                origin[face] = m.origin[f];
                offsets[face + 1] = point + m.ends[f];
                shapes[face] =
                        (byte) Clip.shape(offsets[face + 1] - offsets[face]).ordinal();
                face++;
            }
            point += m.points;
        }
        var cut = new Cut(new Mesh(xyz, shapes, offsets, nodes), owner, stencil.build(), round, Double.NaN);
        return measured(sheet, covered, cut, origin);
    }

    private static LaidSheet measured(Mesh sheet, double[] covered, Cut cut, int[] origin) {
        var whole = new Sum();
        var outside = new Sum();
        var view = new Cell(sheet);
        double most = 0;
        Point place = null;
        double[] c = new double[3];
        for (int f = 0; f < covered.length; f++) {
            double own = view.load(f).measure();
            whole.add(own);
            double lost = own - covered[f];
            if (lost > NOTHING * own) {
                outside.add(lost);
                if (lost > most) {
                    most = lost;
                    view.centre(c);
                    place = new Point(c[0], c[1], c[2]);
                }
            }
        }
        double share = whole.value() == 0 ? 0 : 1 - outside.value() / whole.value();
        return new LaidSheet(cut.covering(share), origin, whole.value(), outside.value(), place);
    }
}
