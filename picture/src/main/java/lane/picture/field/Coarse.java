package lane.picture.field;

import java.util.Arrays;
import java.util.List;

/**
 * A scene with fewer triangles, to be drawn while the view moves: nodes are gathered in the cells of a grid over the
 * scene, each cell's at the mean of its nodes with the mean of their values, and triangles that fall together are left
 * out. It is never exported and never read from.
 */
public final class Coarse {
    /** A scene with more triangles than this is worth it. */
    public static final int MANY = 2_500_000;

    private static final int CELLS = 160;

    private Coarse() {}

    /** The scene itself where it is small. */
    public static Scene of(Scene scene) {
        long all = scene.surfaces().stream().mapToLong(Scene.Surface::triangles).sum();
        if (all <= MANY) {
            return scene;
        }
        List<Scene.Surface> out = scene.surfaces().stream().map(Coarse::of).toList();
        return new Scene(out, scene.away());
    }

    private static Scene.Surface of(Scene.Surface s) {
        if (s.triangles() < 50_000) {
            return s;
        }
        double[] x = s.xyz();
        double[] low = {Double.POSITIVE_INFINITY, Double.POSITIVE_INFINITY, Double.POSITIVE_INFINITY};
        double[] high = {Double.NEGATIVE_INFINITY, Double.NEGATIVE_INFINITY, Double.NEGATIVE_INFINITY};
        for (int i = 0; i < x.length; i++) {
            low[i % 3] = Math.min(low[i % 3], x[i]);
            high[i % 3] = Math.max(high[i % 3], x[i]);
        }
        double size = Math.max(high[0] - low[0], Math.max(high[1] - low[1], high[2] - low[2]));
        double step = size > 0 ? size / CELLS : 1;
        int nodes = x.length / 3;
        long[] cell = new long[nodes];
        for (int i = 0; i < nodes; i++) {
            long a = (long) ((x[3 * i] - low[0]) / step);
            long b = (long) ((x[3 * i + 1] - low[1]) / step);
            long c = (long) ((x[3 * i + 2] - low[2]) / step);
            cell[i] = a << 42 | b << 21 | c;
        }
        long[] sorted = cell.clone();
        Arrays.parallelSort(sorted);
        int n = 0;
        for (int i = 0; i < nodes; i++) {
            if (i == 0 || sorted[i] != sorted[i - 1]) {
                sorted[n++] = sorted[i];
            }
        }
        int[] to = new int[nodes];
        double[] sum = new double[3 * n];
        double[] value = new double[n];
        int[] count = new int[n];
        boolean valued = s.value().length > 0 && s.byNode();
        for (int i = 0; i < nodes; i++) {
            int k = Arrays.binarySearch(sorted, 0, n, cell[i]);
            to[i] = k;
            count[k]++;
            for (int d = 0; d < 3; d++) {
                sum[3 * k + d] += x[3 * i + d];
            }
            value[k] += valued ? s.value()[i] : 0;
        }
        float[] mean = new float[valued ? n : s.value().length];
        for (int k = 0; k < n; k++) {
            for (int d = 0; d < 3; d++) {
                sum[3 * k + d] /= count[k];
            }
            if (valued) {
                mean[k] = (float) (value[k] / count[k]);
            }
        }
        if (!valued) {
            System.arraycopy(s.value(), 0, mean, 0, mean.length);
        }
        int[] corners = new int[s.corners().length];
        int[] face = new int[s.face().length];
        int t = 0;
        for (int i = 0; i < s.triangles(); i++) {
            int a = to[s.corners()[3 * i]];
            int b = to[s.corners()[3 * i + 1]];
            int c = to[s.corners()[3 * i + 2]];
            if (a != b && b != c && a != c) {
                corners[3 * t] = a;
                corners[3 * t + 1] = b;
                corners[3 * t + 2] = c;
                face[t++] = s.face()[i];
            }
        }
        return new Scene.Surface(
                s.name(),
                sum,
                Arrays.copyOf(corners, 3 * t),
                Arrays.copyOf(face, t),
                mean,
                s.byNode(),
                s.opacity(),
                new byte[t],
                s.whole());
    }
}
