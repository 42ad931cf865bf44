package lane.evaluation;

import java.util.Arrays;
import java.util.List;
import lane.base.Work;
import lane.field.Run;
import lane.mesh.Axis;
import lane.station.Placement;
import lane.station.Placer;
import org.jspecify.annotations.Nullable;

/**
 * A quantity of another run as numbers at places of space: each place is found in a cell of that run and the quantity is
 * computed there, as at a sample of its own. Absent outside of it.
 */
public final class InRun implements Anywhere {
    private final String lane;
    private final Run run;
    private final BoundQuantity ready;
    private final @Nullable Axis turned;
    private final Object identity;
    /** What was computed last by each thread: the components of one block of places are asked for one after another. */
    private static final ThreadLocal<@Nullable Block> LAST = new ThreadLocal<>();

    private final @Nullable Outside counted = Outside.now();

    private record Block(InRun of, double[] xyz, double[][] values) {}

    /** @param lane for people: whose numbers they are */
    public InRun(String lane, Run run, BoundQuantity ready, Axis axis) {
        this.lane = lane;
        this.run = run;
        this.ready = ready;
        // A plane run that stands for a full turn is found by radius and height.
        turned = run.stated().turn() != null && run.mesh().dimension() == 2 ? axis : null;
        identity = List.of(run.key(), ready.depends(), turned == null ? "" : turned);
    }

    @Override
    public String word() {
        return ready.made() + " of " + lane + ", at the place";
    }

    @Override
    public void at(double[] x, double[] y, double[] z, int n, double[] into) {
        at(0, x, y, z, n, into);
    }

    @Override
    public void at(int component, double[] x, double[] y, double[] z, int n, double[] into) {
        double[] xyz = new double[3 * n];
        for (int i = 0; i < n; i++) {
            xyz[3 * i] = x[i];
            xyz[3 * i + 1] = y[i];
            xyz[3 * i + 2] = z[i];
        }
        Block block = LAST.get();
        // Who counts is part of it: a second reading that asks for the same places has its own share outside.
        if (block == null || block.of.counted != counted || !block.of.equals(this) || !Arrays.equals(block.xyz, xyz)) {
            Placement places = Placer.points(run.locator(), xyz, turned, Work.QUIET);
            block = new Block(this, xyz, ready.at(places, turned));
            if (counted != null) {
                int absent = 0;
                for (int cell : places.cell()) {
                    absent += cell < 0 ? 1 : 0;
                }
                counted.add(lane, n, absent);
            }
            LAST.set(block);
        }
        System.arraycopy(block.values[component], 0, into, 0, n);
    }

    @Override
    public boolean equals(@Nullable Object other) {
        return other instanceof InRun r && identity.equals(r.identity);
    }

    @Override
    public int hashCode() {
        return identity.hashCode();
    }
}
