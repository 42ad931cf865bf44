package lane.transfer;

import java.util.Arrays;
import lane.mesh.Cell;
import lane.mesh.CellMeasures;
import lane.mesh.CellQuadrature;
import lane.mesh.Mesh;

/** The measure of cells and the integrals of their shape functions, by the same rules as over pieces of them. One thread's own. */
final class CellIntegral {
    private static final int DEGREE = 4;
    private static final int LINEAR = 3;

    private final CellBody body;
    private final CellQuadrature quadrature;
    private final double[] origin = new double[3];
    private double[] weights = new double[27];
    private double measure;

    CellIntegral(Mesh mesh) {
        body = new CellBody(
                mesh, CellMeasures.plane(mesh), mesh.modelSize() / Math.sqrt(Math.max(1, mesh.cellCount())));
        quadrature = new CellQuadrature(mesh, DEGREE, LINEAR);
    }

    Cell cell() {
        return body.cell;
    }

    /** Volume or area of a cell. */
    double measure(int c) {
        Cell cell = body.cell.load(c);
        if (!cell.shape().quadratic()) {
            // The facets about the means of bent faces hold the same volume as the faces themselves.
            double straight = Basis.straight(cell);
            measure = Double.isNaN(straight) ? Math.abs(cell.measure()) : straight;
            return measure;
        }
        System.arraycopy(cell.x(), 0, origin, 0, 3);
        body.load(c, origin, false);
        measure = Math.abs(body.measure());
        return measure;
    }

    /** That of the last cell. */
    double measure() {
        return measure;
    }

    /** The integral of each node's shape function over the loaded cell. */
    double[] weights() {
        return weights;
    }

    void load(int c) {
        Cell cell = body.cell.load(c);
        double straight = Basis.straight(cell);
        if (!Double.isNaN(straight)) {
            measure = straight;
            weights = weights.length < cell.size() ? new double[2 * cell.size()] : weights;
            Arrays.fill(weights, 0, cell.size(), measure / cell.size());
            return;
        }
        System.arraycopy(cell.x(), 0, origin, 0, 3);
        body.load(c, origin, Basis.inParts(body.cell.shape()));
        int n = body.cell.size();
        weights = weights.length < n ? new double[2 * n] : weights;
        Arrays.fill(weights, 0, n, 0);
        measure = 0;
        if (body.parts) {
            double[] one = new double[n];
            for (int k = 0; k < body.count; k++) {
                Piece p = body.pieces[k];
                p.moments();
                double v = body.sign[k] * p.volume / body.thickness;
                measure += v;
                if (p.volume != 0) {
                    body.weights(k, p.mx / p.volume, p.my / p.volume, p.mz / p.volume, one);
                    for (int i = 0; i < n; i++) {
                        weights[i] += v * one[i];
                    }
                }
            }
            return;
        }
        quadrature.load(c);
        for (int q = 0; q < quadrature.size(); q++) {
            quadrature.at(q);
            measure += quadrature.weight();
            for (int i = 0; i < n; i++) {
                weights[i] += quadrature.weight() * quadrature.weights()[i];
            }
        }
    }
}
