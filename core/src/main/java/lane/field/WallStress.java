package lane.field;

import lane.base.Sum;
import lane.mesh.Mesh;
import lane.unit.Unit;

/** Which way a stored wall stress points, by the flow next to the wall. */
public final class WallStress {
    private static final Unit STRESS = Unit.of("Pa");
    private static final Unit SPEED = Unit.of("m/s");

    private WallStress() {}

    /** Whether a field looks like a stress that is stored on walls. */
    public static boolean is(Field field) {
        return field.components() == 3
                && field.unit().known()
                && field.unit().dimension().equals(STRESS.dimension());
    }

    /**
     * How much the stress points along the flow in the cells behind the wall: the sum of stress times velocity over the
     * sum of their sizes, from -1 (against the flow: it acts on the fluid) to 1 (along it: on the wall). NaN where the
     * run has no velocity or no flow next to the parts that carry the stress.
     */
    public static double alongFlow(Run run, String name) {
        Field velocity = run.fields().stream()
                .filter(f -> f.components() == 3
                        && f.unit().known()
                        && f.unit().dimension().equals(SPEED.dimension()))
                .findFirst()
                .orElse(null);
        if (velocity == null) {
            return Double.NaN;
        }
        var along = new Sum();
        var size = new Sum();
        for (Part part : run.parts()) {
            Field own = part.field(name).orElse(null);
            Field stress = own != null ? own : run.field(name).orElse(null);
            if (stress == null || part.role().opening()) {
                continue;
            }
            Mesh m = part.surface();
            for (int f = 0; f < m.cellCount(); f++) {
                if (part.owner()[f] >= 0) {
                    add(run, part, velocity, stress, own != null, f, along, size);
                }
            }
        }
        return size.value() > 0 ? along.value() / size.value() : Double.NaN;
    }

    private static void add(
            Run run, Part part, Field velocity, Field stress, boolean own, int face, Sum along, Sum size) {
        Mesh m = part.surface();
        int owner = part.owner()[face];
        double[] tau = new double[3];
        double[] u = new double[3];
        if (stress.at() == Field.At.CELL) {
            add(tau, stress, own ? face : owner, 1);
        } else {
            for (int k = m.begin(face); k < m.begin(face) + m.size(face); k++) {
                int node = own ? m.nodes()[k] : part.node()[m.nodes()[k]];
                if (node >= 0) {
                    add(tau, stress, node, 1.0 / m.size(face));
                }
            }
        }
        Mesh mesh = run.mesh();
        if (velocity.at() == Field.At.CELL) {
            add(u, velocity, owner, 1);
        } else {
            for (int k = mesh.begin(owner); k < mesh.begin(owner) + mesh.size(owner); k++) {
                add(u, velocity, mesh.nodes()[k], 1.0 / mesh.size(owner));
            }
        }
        // A wall that moves takes the fluid along: only the flow relative to it counts.
        if (velocity.at() == Field.At.NODE) {
            for (int k = m.begin(face); k < m.begin(face) + m.size(face); k++) {
                int node = part.node()[m.nodes()[k]];
                if (node >= 0) {
                    add(u, velocity, node, -1.0 / m.size(face));
                }
            }
        }
        along.add(tau[0] * u[0] + tau[1] * u[1] + tau[2] * u[2]);
        size.add(Math.sqrt(
                (tau[0] * tau[0] + tau[1] * tau[1] + tau[2] * tau[2]) * (u[0] * u[0] + u[1] * u[1] + u[2] * u[2])));
    }

    private static void add(double[] to, Field f, int at, double weight) {
        for (int d = 0; d < 3; d++) {
            double v = f.values().get(3 * at + d);
            to[d] += Double.isFinite(v) ? weight * v : 0;
        }
    }
}
