package lane.study;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import lane.field.Run;
import lane.field.Treatment;
import lane.provenance.Method;
import lane.provenance.Provenance;

/** How the trail of a lane's answers begins: its files, its time, and what was stated or assumed of it. */
final class Facts {
    private static final Method READ = new Method("files read, parts matched with the mesh", 1);

    private Facts() {}

    /** @param overTime whether the answer rests on all times, and not on the one that the run is open at */
    static Provenance trail(Run run, Source.Simulation source, boolean overTime) {
        return new Provenance(overTime ? List.of() : run.inputs(), List.of())
                .then("source", READ, "{read}", of(run, source, overTime));
    }

    /** What is particular about a run: its time, and what was stated of it. */
    private static Map<String, String> of(Run run, Source.Simulation source, boolean overTime) {
        Treatment treatment = source.treatment();
        var out = new LinkedHashMap<String, String>();
        out.put(
                "read",
                overTime
                        ? source.file()
                        : run.inputs().isEmpty()
                                ? "run in memory"
                                : run.inputs().getFirst().brief());
        if (!treatment.length().isBlank()) {
            out.put("coordinates in", treatment.length());
        } else if (!run.stated().length()) {
            out.put("coordinates in", "m, assumed: neither the file nor anybody says their unit");
        }
        treatment
                .order()
                .forEach((f, o) -> out.put(
                        "components of " + f, String.join(", ", Treatment.components(o.size())) + " from " + o));
        run.fields().stream()
                .filter(f -> run.remarks().contains(Treatment.assumed(f.name())))
                .forEach(f -> out.put("components of " + f.name(), "xx, yy, zz, xy, yz, xz, assumed"));
        treatment.parts().forEach(e -> out.merge("parts", e.toString(), (a, b) -> a + "; " + b));
        if (!Double.isNaN(run.time()) && !overTime) {
            out.put(
                    "time",
                    run.time()
                            + (run.times().size() > 1
                                    ? ", one of " + run.times().size()
                                    : ""));
        }
        if (run.stated().system() != null) {
            out.put("units", run.stated().system().name());
        }
        run.stated().units().forEach((f, u) -> out.put("unit of " + f, u.label() + ", stated for this run"));
        if (!run.gather().whole()) {
            out.put("read in", run.gather().pieces() + " pieces, one after the other");
        }
        if (run.stated().depth() != 1) {
            out.put("depth", run.stated().depth() + " m");
        }
        if (run.stated().turn() != null) {
            out.put("stands for", run.stated().turn().word());
        }
        run.stated().onWall().forEach((f, w) -> out.put(f + " acts on", w ? "the wall" : "the fluid"));
        return out;
    }
}
