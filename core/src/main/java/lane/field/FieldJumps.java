package lane.field;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import lane.base.Parallel;
import lane.mesh.Finding;
import lane.mesh.Finding.Severity;
import lane.mesh.Mesh;
import lane.mesh.Point;

/**
 * Fields that change by a large part of their range from a cell to the next: the mesh is too coarse there, or the field
 * has a shock. A node field's jump is its spread over the nodes of a cell, a cell field's that over the cells around a
 * node.
 */
final class FieldJumps {
    /** Share of the field's range. */
    static final double LARGE = 0.3;

    private static final int BLOCK = 8192;

    private FieldJumps() {}

    static void look(Run run, List<Finding> out) {
        for (Field f : run.fields()) {
            boolean names = f.values() instanceof Values.Ints;
            for (int c = 0; !names && c < f.components(); c++) {
                double range = width(f);
                if (range > 0 && look(run.mesh(), f, c, range, out)) {
                    break;
                }
            }
        }
    }

    /** The widest range of the components. */
    private static double width(Field f) {
        double most = 0;
        for (int c = 0; c < f.components(); c++) {
            double[] r = f.range(c);
            most = Math.max(most, r[2] - r[0]);
        }
        return most;
    }

    private static boolean look(Mesh mesh, Field f, int component, double range, List<Finding> out) {
        double[] jump = f.at() == Field.At.NODE ? overCells(mesh, f, component) : aroundNodes(mesh, f, component);
        int count = 0;
        int worst = 0;
        for (int i = 0; i < jump.length; i++) {
            count += jump[i] > LARGE * range ? 1 : 0;
            worst = jump[i] > jump[worst] ? i : worst;
        }
        if (count == 0) {
            return false;
        }
        int node = f.at() == Field.At.NODE ? mesh.nodes()[mesh.begin(worst)] : worst;
        out.add(new Finding(
                Severity.WARNING,
                String.format(
                        Locale.ROOT,
                        "%s \"%s\" changes by more than %.0f %% of its range, at most %.0f %%: the mesh is too coarse there",
                        f.at() == Field.At.NODE ? "cells across which" : "nodes around which",
                        f.name(),
                        100 * LARGE,
                        100 * jump[worst] / range),
                count,
                new Point(mesh.xyz()[3 * node], mesh.xyz()[3 * node + 1], mesh.xyz()[3 * node + 2])));
        return true;
    }

    private static double[] overCells(Mesh mesh, Field f, int component) {
        double[] jump = new double[mesh.cellCount()];
        int n = f.components();
        Parallel.forBlocks(jump.length, BLOCK, (block, from, to) -> {
            for (int c = from; c < to; c++) {
                double least = Double.POSITIVE_INFINITY;
                double greatest = Double.NEGATIVE_INFINITY;
                for (int k = mesh.begin(c); k < mesh.begin(c) + mesh.size(c); k++) {
                    double v = f.values().get(mesh.nodes()[k] * n + component);
                    least = Math.min(least, v);
                    greatest = Math.max(greatest, v);
                }
                jump[c] = greatest - least;
            }
        });
        return jump;
    }

    private static double[] aroundNodes(Mesh mesh, Field f, int component) {
        double[] least = new double[mesh.nodeCount()];
        double[] greatest = new double[mesh.nodeCount()];
        Arrays.fill(least, Double.POSITIVE_INFINITY);
        Arrays.fill(greatest, Double.NEGATIVE_INFINITY);
        int dimension = mesh.dimension();
        for (int c = 0; c < mesh.cellCount(); c++) {
            double v = f.values().get(c * f.components() + component);
            if (mesh.shape(c).dimension() == dimension && Double.isFinite(v)) {
                for (int k = mesh.begin(c); k < mesh.begin(c) + mesh.size(c); k++) {
                    int node = mesh.nodes()[k];
                    least[node] = Math.min(least[node], v);
                    greatest[node] = Math.max(greatest[node], v);
                }
            }
        }
        for (int i = 0; i < least.length; i++) {
            least[i] = greatest[i] >= least[i] ? greatest[i] - least[i] : 0;
        }
        return least;
    }
}
