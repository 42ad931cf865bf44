package lane.station;

import java.util.Set;
import java.util.function.Supplier;
import lane.base.Work;
import lane.cut.Cut;
import lane.field.Part;
import lane.field.Run;
import lane.mesh.Axis;
import lane.mesh.Mesh;

/** What a station may look up to be resolved on a run. */
public interface Resolver {
    /** The station's name, for sentences. */
    String name();

    /** The study's axis. */
    Axis axis();

    Work work();

    /**
     * A quantity at all nodes of a run, in SI units.
     *
     * @param quantity its key
     */
    double[] nodeValues(Run run, String quantity);

    /** A number in the unit that a quantity is shown in, in SI units. */
    double toSi(Run run, String quantity, double shown);

    /** A surface as its file has it. */
    Mesh sheet(String file);

    /** The cells of a region. */
    int[] cells(Run run, Within within);

    /** What a surface cuts out of a run, kept for the next who asks. */
    Cut cut(Run run, Shape.Cutting surface);

    /** A cut as a part with values of these fields at its nodes. */
    Part part(Run run, Cut cut, Set<String> fields);

    /** Keeps what is made of a run under a key that holds all that it depends on. */
    <T> T keep(Object key, Supplier<T> make);

    /** Whether a run is a plane one that stands for a full turn about the study's axis. */
    static boolean meridian(Run run) {
        return run.stated().turn() != null && run.mesh().dimension() == 2;
    }
}
