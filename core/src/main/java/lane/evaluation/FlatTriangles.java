package lane.evaluation;

import lane.formula.Program;
import lane.mesh.CellShape;
import lane.mesh.FaceQuadrature;
import lane.mesh.Mesh;

/** The points of flat triangles, as many at once as there is room for: reading one node after the other waits for each. */
final class FlatTriangles {
    /** Nodes of the triangles that were placed last, three each. */
    final int[] corner = new int[3 * Program.BLOCK];

    private final double[] shares;
    private final double[] weights;

    FlatTriangles(FaceQuadrature rule) {
        shares = rule.triangle();
        weights = rule.triangleWeights();
    }

    /** Behind the last of the triangles that follow each other from a face on; that face itself where it is none. */
    static int end(Mesh mesh, int from, int to) {
        int end = from;
        while (end < to && mesh.shape(end) == CellShape.TRIANGLE) {
            end++;
        }
        return end;
    }

    /** How many points each has. */
    int points() {
        return weights.length;
    }

    /**
     * Writes area vectors behind the points that are there; they are not counted yet.
     *
     * @param from first of {@code many} triangles that follow each other, for whose points there is room
     * @param placed whether places are wanted too
     */
    void place(Mesh mesh, int from, int many, boolean placed, SurfacePoints at) {
        System.arraycopy(mesh.nodes(), mesh.begin(from), corner, 0, 3 * many);
        double[] xyz = mesh.xyz();
        int points = weights.length;
        int n = at.n;
        double[] x = at.x;
        double[] y = at.y;
        double[] z = at.z;
        double[] px = at.nx;
        double[] py = at.ny;
        double[] pz = at.nz;
        for (int j = 0; j < many; j++) {
            int a = 3 * corner[3 * j];
            int b = 3 * corner[3 * j + 1];
            int c = 3 * corner[3 * j + 2];
            double ax = xyz[a];
            double ay = xyz[a + 1];
            double az = xyz[a + 2];
            double ux = xyz[b] - ax;
            double uy = xyz[b + 1] - ay;
            double uz = xyz[b + 2] - az;
            double vx = xyz[c] - ax;
            double vy = xyz[c + 1] - ay;
            double vz = xyz[c + 2] - az;
            double nx = uy * vz - uz * vy;
            double ny = uz * vx - ux * vz;
            double nz = ux * vy - uy * vx;
            for (int q = 0; q < points; q++) {
                double w = weights[q];
                double s = shares[3 * q + 1];
                double t = shares[3 * q + 2];
                px[n] = w * nx;
                py[n] = w * ny;
                pz[n] = w * nz;
                if (placed) {
                    x[n] = ax + s * ux + t * vx;
                    y[n] = ay + s * uy + t * vy;
                    z[n] = az + s * uz + t * vz;
                }
                n++;
            }
        }
    }
}
