package lane.mesh;

import lane.base.Parallel;
import lane.base.Sum;
import lane.base.Work;

/** The representative size of a mesh's cells: (measure / cells)^(1 / dimension), of the cells of the highest dimension. */
public final class CellSize {
    private static final int BLOCK = 1 << 13;

    private CellSize() {}

    /** @return in metres; NaN for a mesh without cells that have a size */
    public static double of(Mesh mesh, Work work) {
        int dimension = mesh.dimension();
        int blocks = Parallel.blocks(mesh.cellCount(), BLOCK);
        double[] sums = new double[blocks];
        int[] counts = new int[blocks];
        Parallel.forBlocks(mesh.cellCount(), BLOCK, (block, from, to) -> {
            work.poll();
            var cell = new Cell(mesh);
            var sum = new Sum();
            for (int c = from; c < to; c++) {
                if (mesh.shape(c).dimension() == dimension) {
                    sum.add(Math.abs(cell.load(c).measure()));
                    counts[block]++;
                }
            }
            sums[block] = sum.value();
        });
        var all = new Sum();
        long cells = 0;
        for (int b = 0; b < blocks; b++) {
            all.add(sums[b]);
            cells += counts[b];
        }
        return cells == 0 || dimension == 0 || !(all.value() > 0)
                ? Double.NaN
                : Math.pow(all.value() / cells, 1.0 / dimension);
    }
}
