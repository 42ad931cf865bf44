package lane.transfer;

import java.util.Arrays;
import lane.base.LaneException;
import lane.base.Parallel;
import lane.base.Work;
import lane.mesh.Cell;
import lane.mesh.CellLocator;
import lane.mesh.CellMeasures;
import lane.mesh.Mesh;

/**
 * What cells of two meshes have in common, target cell by target cell; the same on any number of threads. Exact for cells of flat faces;
 * what two meshes share is then neither lost nor counted twice, but for round-off.
 */
final class Overlap {
    private static final int BLOCK = 256;
    /** Distances up to this share of the cells' sizes lie in a plane. */
    private static final double ZERO = 8e-15;
    /** What is left of a cell below this share of it is round-off. */
    static final double NOTHING = 1e-12;

    private final Mesh source;
    private final Mesh target;
    private final double[] normal;
    private final double thickness;

    /** Takes what belongs to one target cell; one for each thread's block. */
    interface Taker {
        /** A piece of a source cell in the target cell that is worked on. */
        void piece(int sourceCell, int body, int targetBody, Piece piece, double sign);

        /** Before the pieces of a source cell; coordinates are told from an origin. */
        void begin(double[] origin);

        /** After all pieces of a target cell. */
        void end(int targetCell, double measure);
    }

    /** Makes a taker. */
    @FunctionalInterface
    interface Takers {
        /** @param source and {@code target}: the bodies that are worked on */
        Taker make(CellBody source, CellBody target);
    }

    /**
     * @throws LaneException where meshes are of different dimension, are lines, or are surfaces that do not lie in one plane
     */
    Overlap(Mesh source, Mesh target) {
        int dimension = source.dimension();
        if (dimension != target.dimension() || dimension < 2) {
            throw new LaneException("Cells overlap where both meshes are solid or both are plane; the source has "
                    + dimension + " dimensions, the target " + target.dimension() + ".");
        }
        normal = CellMeasures.plane(source);
        if (dimension == 2) {
            if (!CellMeasures.flat(source) || !CellMeasures.flat(target)) {
                throw new LaneException(
                        "Cells of surfaces overlap only in a plane, and one of these bends; interpolate.");
            }
            double off = height(target) - height(source);
            double[] other = CellMeasures.plane(target);
            double along = normal[0] * other[0] + normal[1] * other[1] + normal[2] * other[2];
            if (Math.abs(along) < 1 - 1e-9 || Math.abs(off) > 1e-6 * Math.max(source.modelSize(), target.modelSize())) {
                throw new LaneException(
                        "The two meshes lie in different planes, so their cells have nothing in common.");
            }
        }
        this.source = source;
        this.target = target;
        // Slices as thick as cells are wide, so that no plane is badly known.
        thickness = source.modelSize() / Math.sqrt(Math.max(1, source.cellCount()));
    }

    private double height(Mesh mesh) {
        double[] x = mesh.xyz();
        return normal[0] * x[0] + normal[1] * x[1] + normal[2] * x[2];
    }

    /**
     * @param parts whether the source's cells whose shape functions are known in parts alone are to be taken in these
     * @param targetParts the same of the target's
     */
    void run(boolean parts, boolean targetParts, Takers takers, Work work) {
        CellLocator locator = source.locator(work);
        byte[] sources = CellBody.standing(source, normal, thickness, work);
        byte[] targets = CellBody.standing(target, normal, thickness, work);
        var done = new java.util.concurrent.atomic.AtomicInteger();
        int dimension = target.dimension();
        Parallel.forBlocks(target.cellCount(), BLOCK, (block, from, to) -> {
            work.poll();
            var there = new CellBody(target, normal, thickness);
            var here = new CellBody(source, normal, thickness);
            Taker taker = takers.make(here, there);
            var one = new One(here, there, taker, sources, targets);
            for (int c = from; c < to; c++) {
                if (target.shape(c).dimension() == dimension) {
                    one.of(c, locator, parts, targetParts);
                }
            }
            work.progress("overlap of cells", (double) done.addAndGet(to - from) / target.cellCount());
        });
    }

    /** One target cell after the other. */
    private final class One {
        private final CellBody here;
        private final CellBody there;
        private final Taker taker;
        private final byte[] sources;
        private final byte[] targets;
        private final Cell probe = new Cell(source);
        private final Piece piece = new Piece();
        private final double[] origin = new double[3];
        private final double[] box = new double[6];
        private double[][] planes = {};
        private int[] near = new int[64];
        private int count;

        One(CellBody here, CellBody there, Taker taker, byte[] sources, byte[] targets) {
            this.sources = sources;
            this.targets = targets;
            this.here = here;
            this.there = there;
            this.taker = taker;
        }

        void of(int c, CellLocator locator, boolean parts, boolean targetParts) {
            Cell cell = there.cell.load(c);
            Arrays.fill(box, 0, 6, 0);
            for (int i = 0; i < 3; i++) {
                origin[i] = cell.x()[i];
                double least = origin[i];
                double greatest = origin[i];
                for (int k = 1; k < cell.size(); k++) {
                    least = Math.min(least, cell.x()[3 * k + i]);
                    greatest = Math.max(greatest, cell.x()[3 * k + i]);
                }
                box[2 * i] = least;
                box[2 * i + 1] = greatest;
            }
            there.load(c, origin, targetParts && Basis.inParts(target.shape(c)), targets[c]);
            double measure = there.measure();
            if (planes.length < there.count) {
                planes = Arrays.copyOf(planes, there.count);
            }
            for (int k = 0; k < there.count; k++) {
                Piece p = there.pieces[k];
                double[] own = planes[k];
                if (own == null || own.length < 4 * p.faces()) {
                    own = new double[4 * p.faces()];
                    planes[k] = own;
                }
                p.planes(own);
            }
            count = 0;
            locator.near(box, s -> {
                if (count == near.length) {
                    near = Arrays.copyOf(near, 2 * count);
                }
                near[count++] = s;
            });
            // The sums of a cell go in the order of the source's cells, however they are searched for.
            Arrays.sort(near, 0, count);
            for (int k = 0; k < count; k++) {
                with(near[k], parts);
            }
            taker.end(c, measure);
        }

        private void with(int s, boolean parts) {
            if (source.shape(s).dimension() != target.dimension()) {
                return;
            }
            // Corners of plane cells lie in the side of a slice, not before it.
            if (there.count == 1
                    && target.dimension() == 3
                    && CellBody.before(probe.load(s), origin, planes[0], there.pieces[0].faces(), ZERO * there.size)) {
                return;
            }
            here.load(s, origin, parts && Basis.inParts(source.shape(s)), sources[s]);
            taker.begin(origin);
            double zero = ZERO * (here.size + there.size);
            if (here.count == 1 && there.count == 1) {
                // Nothing else is to be cut from it, so it need not be copied.
                Piece own = here.pieces[0];
                if (cut(own, planes[0], there.pieces[0].faces(), zero)) {
                    taken(s, own, 0, 0);
                }
                return;
            }
            for (int a = 0; a < here.count; a++) {
                for (int b = 0; b < there.count; b++) {
                    if (!here.meets(a, there, b)) {
                        continue;
                    }
                    piece.copy(here.pieces[a]);
                    if (cut(piece, planes[b], there.pieces[b].faces(), zero)) {
                        taken(s, piece, a, b);
                    }
                }
            }
        }

        private void taken(int s, Piece of, int a, int b) {
            of.moments();
            if (of.volume != 0) {
                taker.piece(s, a, b, of, here.sign[a] * there.sign[b]);
            }
        }

        private static boolean cut(Piece piece, double[] by, int faces, double zero) {
            for (int f = 0; f < faces; f++) {
                if (!piece.clip(by[4 * f], by[4 * f + 1], by[4 * f + 2], by[4 * f + 3], zero)) {
                    return false;
                }
            }
            return true;
        }
    }
}
