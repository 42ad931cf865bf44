package lane.mesh;

import java.util.List;
import lane.base.Parallel;
import lane.mesh.Finding.Severity;
import org.jspecify.annotations.Nullable;

/**
 * Shape of the cells by their corners: skewness from the angles of the faces, warp of faces that are not flat, and the
 * ratio of the longest to the shortest edge.
 *
 * <p>Skewness is that of the equal angle: the greatest of (a - e) / (180 - e) and (e - a) / e over all corner angles a,
 * where e is the angle of the regular face: 0 for the best cell, 1 for one that is flat. Warp is the greatest distance
 * of a face's corners from its mean plane over the square root of its area.
 *
 * @param skewness how many cells have a skewness from i/10 to (i+1)/10
 */
public record CellQuality(
        int[] skewness, double worstSkewness, double worstWarp, double worstAspect, List<Finding> findings) {
    /** From here on gradients in the cell are poor. */
    public static final double SKEWED = 0.9;

    public static final double WARPED = 0.25;
    public static final double LONG = 1000;
    private static final int BINS = 10;
    private static final int BLOCK = 4096;

    /** Of the cells of the mesh's highest dimension, from 2 on. */
    public static CellQuality of(Mesh mesh) {
        int dimension = mesh.dimension();
        int n = mesh.cellCount();
        int blocks = Parallel.blocks(n, BLOCK);
        Tally[] partial = new Tally[blocks];
        if (dimension >= 2) {
            Parallel.forBlocks(n, BLOCK, (block, from, to) -> {
                var tally = new Tally();
                var cell = new Cell(mesh);
                for (int c = from; c < to; c++) {
                    if (mesh.shape(c).dimension() == dimension) {
                        tally.add(cell.load(c), c);
                    }
                }
                partial[block] = tally;
            });
        }
        var all = new Tally();
        for (Tally t : partial) {
            if (t != null) {
                all.join(t);
            }
        }
        List<Finding> findings = new java.util.ArrayList<>();
        if (all.skewed > 0) {
            findings.add(new Finding(
                    Severity.WARNING,
                    "cells are very skewed (more than " + SKEWED + "): gradients are poor there",
                    all.skewed,
                    centre(mesh, all.skewedCell)));
        }
        if (all.warped > 0) {
            findings.add(new Finding(
                    Severity.WARNING,
                    "cells have faces that are far from flat: volumes and fluxes depend on how they are cut",
                    all.warped,
                    centre(mesh, all.warpedCell)));
        }
        if (all.stretched > 0) {
            findings.add(new Finding(
                    Severity.NOTE,
                    "cells are more than 1000 times longer than high: right at a wall, poor elsewhere",
                    all.stretched,
                    centre(mesh, all.longCell)));
        }
        return new CellQuality(all.bins, all.worstSkew, all.worstWarp, all.worstAspect, List.copyOf(findings));
    }

    private static Point centre(Mesh mesh, int cell) {
        double[] c = new double[3];
        new Cell(mesh).load(cell).centre(c);
        return new Point(c[0], c[1], c[2]);
    }

    /** What is known of some cells. */
    private static final class Tally {
        final int[] bins = new int[BINS];
        int skewed;
        int warped;
        int stretched;
        double worstSkew;
        double worstWarp;
        double worstAspect = 1;
        int skewedCell = -1;
        int warpedCell = -1;
        int longCell = -1;

        // Of the cell that is looked at.
        private double skew;
        private double warp;
        private double shortest;
        private double longest;
        private double[] corners = new double[24];

        void add(Cell cell, int index) {
            skew = 0;
            warp = 0;
            shortest = Double.POSITIVE_INFINITY;
            longest = 0;
            if (cell.shape().dimension() == 2) {
                face(cell, null);
            } else {
                // Corners first, so that middles of edges are told from corners; only a polyhedron lists its own.
                boolean own = cell.shape() == CellShape.POLYHEDRON;
                for (int[] f : own ? cell.faces() : cell.shape().faces()) {
                    face(cell, f);
                }
            }
            if (!Double.isFinite(skew + warp + longest)) {
                return;
            }
            double aspect = shortest > 0 ? longest / shortest : Double.POSITIVE_INFINITY;
            bins[Math.clamp((int) (skew * BINS), 0, BINS - 1)]++;
            skewed += skew > SKEWED ? 1 : 0;
            warped += warp > WARPED ? 1 : 0;
            stretched += aspect > LONG ? 1 : 0;
            if (skew > worstSkew || skewedCell < 0) {
                worstSkew = skew;
                skewedCell = index;
            }
            if (warp > worstWarp || warpedCell < 0) {
                worstWarp = warp;
                warpedCell = index;
            }
            if (aspect > worstAspect || longCell < 0) {
                worstAspect = aspect;
                longCell = index;
            }
        }

        /** @param f corners of the face among the cell's nodes, or null for the cell itself */
        private void face(Cell cell, int @Nullable [] f) {
            boolean quadratic = cell.shape().quadratic();
            int n = f != null
                    ? cornersOf(cell, f)
                    : quadratic ? cell.shape().corners().nodes() : cell.size();
            if (corners.length < 3 * n) {
                corners = new double[6 * n];
            }
            for (int i = 0; i < n; i++) {
                System.arraycopy(
                        cell.x(),
                        3 * (f != null ? f[i] : quadratic ? i : cell.shape().around(i)),
                        corners,
                        3 * i,
                        3);
            }
            double regular = Math.PI * (n - 2) / n;
            double nx = 0;
            double ny = 0;
            double nz = 0;
            for (int i = 0; i < n; i++) {
                int a = 3 * ((i + n - 1) % n);
                int b = 3 * i;
                int c = 3 * ((i + 1) % n);
                double ux = corners[a] - corners[b];
                double uy = corners[a + 1] - corners[b + 1];
                double uz = corners[a + 2] - corners[b + 2];
                double vx = corners[c] - corners[b];
                double vy = corners[c + 1] - corners[b + 1];
                double vz = corners[c + 2] - corners[b + 2];
                double u = Math.sqrt(ux * ux + uy * uy + uz * uz);
                double v = Math.sqrt(vx * vx + vy * vy + vz * vz);
                shortest = Math.min(shortest, v);
                longest = Math.max(longest, v);
                double cosine = (ux * vx + uy * vy + uz * vz) / (u * v);
                double angle = Math.acos(Math.clamp(cosine, -1, 1));
                skew = Math.max(skew, Math.max((angle - regular) / (Math.PI - regular), (regular - angle) / regular));
                // The sum over the corners is twice the area vector of the polygon, from its edges.
                nx += corners[b + 1] * corners[c + 2] - corners[b + 2] * corners[c + 1];
                ny += corners[b + 2] * corners[c] - corners[b] * corners[c + 2];
                nz += corners[b] * corners[c + 1] - corners[b + 1] * corners[c];
            }
            double twice = Math.sqrt(nx * nx + ny * ny + nz * nz);
            if (n > 3 && twice > 0) {
                double mean = 0;
                for (int i = 0; i < n; i++) {
                    mean += (corners[3 * i] * nx + corners[3 * i + 1] * ny + corners[3 * i + 2] * nz) / (n * twice);
                }
                for (int i = 0; i < n; i++) {
                    double off =
                            (corners[3 * i] * nx + corners[3 * i + 1] * ny + corners[3 * i + 2] * nz) / twice - mean;
                    warp = Math.max(warp, Math.abs(off) / Math.sqrt(twice / 2));
                }
            }
        }

        private static int cornersOf(Cell cell, int[] f) {
            return cell.shape().quadratic()
                    ? cell.shape().face(f.length).corners().nodes()
                    : f.length;
        }

        void join(Tally o) {
            for (int i = 0; i < BINS; i++) {
                bins[i] += o.bins[i];
            }
            skewed += o.skewed;
            warped += o.warped;
            stretched += o.stretched;
            if (o.skewedCell >= 0 && (o.worstSkew > worstSkew || skewedCell < 0)) {
                worstSkew = o.worstSkew;
                skewedCell = o.skewedCell;
            }
            if (o.warpedCell >= 0 && (o.worstWarp > worstWarp || warpedCell < 0)) {
                worstWarp = o.worstWarp;
                warpedCell = o.warpedCell;
            }
            if (o.longCell >= 0 && (o.worstAspect > worstAspect || longCell < 0)) {
                worstAspect = o.worstAspect;
                longCell = o.longCell;
            }
        }
    }
}
