package lane.transfer;

import java.util.Arrays;

/**
 * A convex body with flat faces that can be cut by planes; one thread's own. Its faces are loops of its corners, seen counterclockwise
 * from outside.
 */
final class Piece {
    private double[] x = new double[3 * 32];
    private int n;
    private int[] loops = new int[128];
    private int[] begin = new int[32];
    private int faces;

    private double[] d = new double[32];
    private int[] map = new int[32];
    private boolean[] on = new boolean[32];
    private int[] next = new int[32];
    private double[] nx = new double[3 * 32];
    private int[] newLoops = new int[128];
    private int[] newBegin = new int[32];
    private int[] ends = new int[3 * 32];
    private int crossings;
    private int made;

    /** Volume and the integrals of x, y and z of the last {@link #moments}. */
    double volume;

    double mx;
    double my;
    double mz;

    /** Takes a tetrahedron: four corners, then the volume with the sign of their order. */
    @FunctionalInterface
    interface Tetrahedra {
        void take(double[] x, int a, int b, int c, int e, double volume);
    }

    void clear() {
        n = 0;
        faces = 0;
    }

    int corners() {
        return n;
    }

    int faces() {
        return faces;
    }

    double[] x() {
        return x;
    }

    int corner(double px, double py, double pz) {
        if (3 * n + 3 > x.length) {
            grow(2 * n + 8);
        }
        x[3 * n] = px;
        x[3 * n + 1] = py;
        x[3 * n + 2] = pz;
        return n++;
    }

    private void grow(int corners) {
        x = Arrays.copyOf(x, 3 * corners);
        nx = Arrays.copyOf(nx, 3 * corners);
        d = Arrays.copyOf(d, corners);
        map = Arrays.copyOf(map, corners);
        on = Arrays.copyOf(on, corners);
        next = Arrays.copyOf(next, corners);
        ends = Arrays.copyOf(ends, 3 * corners);
    }

    void face(int... loop) {
        face(loop, loop.length, false);
    }

    /** @param turned whether it stands the other way round */
    void face(int[] loop, int length, boolean turned) {
        int from = faces == 0 ? 0 : begin[faces];
        if (from + length > loops.length) {
            loops = Arrays.copyOf(loops, 2 * (from + length));
        }
        if (faces + 2 > begin.length) {
            begin = Arrays.copyOf(begin, 2 * begin.length);
        }
        for (int k = 0; k < length; k++) {
            loops[from + k] = loop[turned ? length - 1 - k : k];
        }
        begin[faces] = from;
        begin[++faces] = from + length;
    }

    void copy(Piece of) {
        if (x.length < of.x.length) {
            grow(of.x.length / 3);
        }
        if (loops.length < of.loops.length) {
            loops = new int[of.loops.length];
        }
        if (begin.length < of.begin.length) {
            begin = new int[of.begin.length];
        }
        n = of.n;
        faces = of.faces;
        System.arraycopy(of.x, 0, x, 0, 3 * n);
        System.arraycopy(of.begin, 0, begin, 0, faces + 1);
        System.arraycopy(of.loops, 0, loops, 0, of.begin[faces]);
    }

    /** Turns the body inside out, for one whose faces looked inwards. */
    void turn() {
        for (int f = 0; f < faces; f++) {
            for (int i = begin[f], j = begin[f + 1] - 1; i < j; i++, j--) {
                int a = loops[i];
                loops[i] = loops[j];
                loops[j] = a;
            }
        }
    }

    /**
     * Writes the planes of the faces: unit normal outwards and offset, four numbers each; zeros for a face without an area.
     */
    void planes(double[] out) {
        for (int f = 0; f < faces; f++) {
            int b = begin[f];
            int m = begin[f + 1] - b;
            int p = 3 * loops[b];
            double ax = 0;
            double ay = 0;
            double az = 0;
            for (int k = 1; k + 1 < m; k++) {
                int q = 3 * loops[b + k];
                int r = 3 * loops[b + k + 1];
                double ux = x[q] - x[p];
                double uy = x[q + 1] - x[p + 1];
                double uz = x[q + 2] - x[p + 2];
                double vx = x[r] - x[p];
                double vy = x[r + 1] - x[p + 1];
                double vz = x[r + 2] - x[p + 2];
                ax += uy * vz - uz * vy;
                ay += uz * vx - ux * vz;
                az += ux * vy - uy * vx;
            }
            double size = Math.sqrt(ax * ax + ay * ay + az * az);
            if (size == 0) {
                Arrays.fill(out, 4 * f, 4 * f + 4, 0);
                continue;
            }
            double c = 0;
            for (int k = 0; k < m; k++) {
                int q = 3 * loops[b + k];
                c += ax * x[q] + ay * x[q + 1] + az * x[q + 2];
            }
            out[4 * f] = ax / size;
            out[4 * f + 1] = ay / size;
            out[4 * f + 2] = az / size;
            out[4 * f + 3] = c / m / size;
        }
    }

    /** Whether the corners of each face lie in its plane, planes being those of {@link #planes}. */
    boolean flat(double[] planes, double zero) {
        for (int f = 0; f < faces; f++) {
            for (int k = begin[f]; k < begin[f + 1]; k++) {
                int v = 3 * loops[k];
                double h = planes[4 * f] * x[v]
                        + planes[4 * f + 1] * x[v + 1]
                        + planes[4 * f + 2] * x[v + 2]
                        - planes[4 * f + 3];
                if (Math.abs(h) > zero) {
                    return false;
                }
            }
        }
        return true;
    }

    /**
     * Keeps what lies at or behind a plane; one without a normal takes nothing away.
     *
     * @param zero distances up to this lie in the plane
     * @return false when nothing is left
     */
    boolean clip(double a, double b, double c, double offset, double zero) {
        if (a == 0 && b == 0 && c == 0) {
            return n > 0;
        }
        boolean in = false;
        boolean out = false;
        for (int v = 0; v < n; v++) {
            double h = a * x[3 * v] + b * x[3 * v + 1] + c * x[3 * v + 2] - offset;
            h = Math.abs(h) <= zero ? 0 : h;
            d[v] = h;
            in |= h < 0;
            out |= h > 0;
        }
        if (!in) {
            clear();
            return false;
        }
        if (!out) {
            return true;
        }
        keep();
        return faces > 3;
    }

    private void keep() {
        // Every edge of a loop may be cut once from either side.
        int most = n + begin[faces];
        if (most > map.length) {
            grow(most + 8);
        }
        room(2 * begin[faces] + most, faces + 3);
        double[] h = d;
        int[] to = map;
        int[] from = loops;
        int[] out = newLoops;
        made = 0;
        crossings = 0;
        for (int v = 0; v < n; v++) {
            if (h[v] <= 0) {
                to[v] = made;
                on[made] = h[v] == 0;
                next[made] = -1;
                nx[3 * made] = x[3 * v];
                nx[3 * made + 1] = x[3 * v + 1];
                nx[3 * made++ + 2] = x[3 * v + 2];
            }
        }
        int used = 0;
        int count = 0;
        int start = -1;
        int cap = 0;
        for (int f = 0; f < faces; f++) {
            int first = used;
            int b = begin[f];
            int e = begin[f + 1];
            boolean behind = false;
            boolean touches = false;
            int w = from[e - 1];
            for (int k = b; k < e; k++) {
                int v = w;
                w = from[k];
                double p = h[v];
                double q = h[w];
                if (p < 0 && q > 0 || p > 0 && q < 0) {
                    out[used++] = crossing(v, w);
                    touches = true;
                }
                if (q <= 0) {
                    out[used++] = to[w];
                    behind |= q < 0;
                    touches |= q == 0;
                }
            }
            // Of a face before the plane an edge may be left that lies in it, with corners on it.
            if (used - first < 3 || !behind) {
                used = first;
                continue;
            }
            if (touches) {
                int p = out[used - 1];
                for (int k = first; k < used; k++) {
                    int q = out[k];
                    if (on[p] && on[q]) {
                        next[q] = p;
                        start = q;
                        cap++;
                    }
                    p = q;
                }
            }
            newBegin[count++] = first;
            newBegin[count] = used;
        }
        if (cap >= 3) {
            int first = used;
            int at = start;
            do {
                out[used++] = at;
                at = next[at];
            } while (at >= 0 && at != start && used - first <= cap);
            if (at == start) {
                newBegin[count++] = first;
                newBegin[count] = used;
            }
        }
        swap();
        n = made;
        faces = count;
    }

    private void room(int loop, int face) {
        if (loop > newLoops.length) {
            newLoops = Arrays.copyOf(newLoops, 2 * loop);
        }
        if (face > newBegin.length) {
            newBegin = Arrays.copyOf(newBegin, 2 * face);
        }
    }

    private void swap() {
        double[] a = x;
        x = nx;
        nx = a;
        int[] l = loops;
        loops = newLoops;
        newLoops = l;
        int[] b = begin;
        begin = newBegin;
        newBegin = b;
    }

    /** The corner where an edge passes the plane, the same from both of its faces. */
    private int crossing(int v, int w) {
        int low = Math.min(v, w);
        int high = Math.max(v, w);
        for (int k = 0; k < crossings; k++) {
            if (ends[3 * k] == low && ends[3 * k + 1] == high) {
                return ends[3 * k + 2];
            }
        }
        double t = d[low] / (d[low] - d[high]);
        double s = 1 - t;
        nx[3 * made] = s * x[3 * low] + t * x[3 * high];
        nx[3 * made + 1] = s * x[3 * low + 1] + t * x[3 * high + 1];
        nx[3 * made + 2] = s * x[3 * low + 2] + t * x[3 * high + 2];
        on[made] = true;
        next[made] = -1;
        ends[3 * crossings] = low;
        ends[3 * crossings + 1] = high;
        ends[3 * crossings++ + 2] = made;
        return made++;
    }

    /** Hands on tetrahedra that fill it. */
    void tetrahedra(Tetrahedra taker) {
        for (int f = 0; f < faces; f++) {
            int b = begin[f];
            int m = begin[f + 1] - b;
            if (has(b, m)) {
                continue;
            }
            for (int k = 1; k + 1 < m; k++) {
                taker.take(
                        x,
                        0,
                        loops[b],
                        loops[b + k],
                        loops[b + k + 1],
                        sixfold(loops[b], loops[b + k], loops[b + k + 1]) / 6);
            }
        }
    }

    /** Whether a face has the first corner. */
    private boolean has(int b, int m) {
        for (int k = 0; k < m; k++) {
            if (loops[b + k] == 0) {
                return true;
            }
        }
        return false;
    }

    private double sixfold(int p, int q, int r) {
        double ux = x[3 * p] - x[0];
        double uy = x[3 * p + 1] - x[1];
        double uz = x[3 * p + 2] - x[2];
        double vx = x[3 * q] - x[0];
        double vy = x[3 * q + 1] - x[1];
        double vz = x[3 * q + 2] - x[2];
        double wx = x[3 * r] - x[0];
        double wy = x[3 * r + 1] - x[1];
        double wz = x[3 * r + 2] - x[2];
        return ux * (vy * wz - vz * wy) + uy * (vz * wx - vx * wz) + uz * (vx * wy - vy * wx);
    }

    /** Finds the volume and the integrals of the coordinates. */
    void moments() {
        volume = 0;
        mx = 0;
        my = 0;
        mz = 0;
        for (int f = 0; f < faces; f++) {
            int b = begin[f];
            int m = begin[f + 1] - b;
            if (has(b, m)) {
                continue;
            }
            int p = loops[b];
            for (int k = 1; k + 1 < m; k++) {
                int q = loops[b + k];
                int r = loops[b + k + 1];
                double v = sixfold(p, q, r) / 6;
                volume += v;
                mx += v / 4 * (x[0] + x[3 * p] + x[3 * q] + x[3 * r]);
                my += v / 4 * (x[1] + x[3 * p + 1] + x[3 * q + 1] + x[3 * r + 1]);
                mz += v / 4 * (x[2] + x[3 * p + 2] + x[3 * q + 2] + x[3 * r + 2]);
            }
        }
    }
}
