package lane.field;

import java.util.ArrayList;
import java.util.List;
import lane.base.Sum;
import lane.mesh.Axis;
import lane.mesh.CellMeasures;
import lane.mesh.Finding;
import lane.mesh.Finding.Severity;
import lane.mesh.Mesh;
import lane.mesh.Point;
import lane.unit.Unit;

/**
 * What a run's velocity says about its boundary: walls that do not stand still, openings without flow or with flow the
 * wrong way, and in and out flows that do not agree. Numbers are by the middle of each face, enough to find a fault.
 */
final class FlowHealth {
    private static final Unit SPEED = Unit.of("m/s");

    private FlowHealth() {}

    static void look(Run run, Axis axis, List<Finding> out) {
        Field velocity = run.fields().stream()
                .filter(f -> f.components() == 3
                        && f.at() == Field.At.NODE
                        && f.unit().known()
                        && f.unit().dimension().equals(SPEED.dimension()))
                .findFirst()
                .orElse(null);
        if (velocity == null) {
            return;
        }
        double fastest = 0;
        for (int i = 0; i < velocity.size(); i++) {
            double s = speed(velocity, i);
            fastest = s > fastest ? s : fastest;
        }
        if (fastest == 0) {
            return;
        }
        var in = new Sum();
        var all = new Sum();
        int openings = 0;
        for (Part part : run.parts()) {
            if (part.role() == Role.WALL) {
                wall(part, velocity, fastest, out);
            } else if (part.role().opening()) {
                openings++;
                double[] flow = opening(run, axis, part, velocity, fastest, out);
                in.add(flow[1]);
                all.add(flow[0]);
            }
        }
        double share = in.value() > 0 ? Math.abs(all.value()) / in.value() : 0;
        if (openings > 1 && share > 0.01) {
            out.add(new Finding(
                    Severity.WARNING,
                    "openings together: in and out flow differ by " + Finding.number(100 * share, 2)
                            + " % by volume; look for one that is missing, unless the fluid is compressible",
                    openings,
                    null));
        }
    }

    private static double speed(Field u, int i) {
        double x = u.values().get(3 * i);
        double y = u.values().get(3 * i + 1);
        double z = u.values().get(3 * i + 2);
        return Math.sqrt(x * x + y * y + z * z);
    }

    private static void wall(Part part, Field u, double fastest, List<Finding> out) {
        int moving = 0;
        double most = 0;
        Point where = null;
        double[] x = part.surface().xyz();
        for (int i = 0; i < part.node().length; i++) {
            double s = part.node()[i] < 0 ? 0 : speed(u, part.node()[i]);
            if (s > 1e-6 * fastest) {
                moving++;
                if (s > most) {
                    most = s;
                    where = new Point(x[3 * i], x[3 * i + 1], x[3 * i + 2]);
                }
            }
        }
        if (moving > 0) {
            out.add(new Finding(
                    Severity.NOTE,
                    "nodes of wall \"" + part.name() + "\" do not stand still, \"" + u.name() + "\" is up to "
                            + Finding.number(most, 3) + " there: right if the wall moves",
                    moving,
                    where));
        }
    }

    /** @return flow out of the run, and the flow one way or the other without its sign */
    private static double[] opening(Run run, Axis axis, Part part, Field u, double fastest, List<Finding> out) {
        Mesh m = part.surface();
        var through = new Sum();
        var inwards = new Sum();
        var outwards = new Sum();
        double area = 0;
        List<Integer> reversed = new ArrayList<>();
        double[] n = new double[3];
        double[] plane = CellMeasures.plane(run.mesh());
        double against = 0;
        int worst = -1;
        for (int f = 0; f < m.cellCount(); f++) {
            PartPieces.normal(m, f, plane, n);
            double weight = RunHealth.weight(run, axis, m, f);
            for (int d = 0; d < 3; d++) {
                n[d] *= weight;
            }
            double[] mean = new double[3];
            int known = 0;
            for (int k = 0; k < m.size(f); k++) {
                int node = part.node()[m.nodes()[m.begin(f) + k]];
                if (node >= 0) {
                    known++;
                    for (int d = 0; d < 3; d++) {
                        mean[d] += u.values().get(3 * node + d);
                    }
                }
            }
            if (known == 0) {
                continue;
            }
            double flow = (n[0] * mean[0] + n[1] * mean[1] + n[2] * mean[2]) / known;
            area += Math.sqrt(n[0] * n[0] + n[1] * n[1] + n[2] * n[2]);
            through.add(flow);
            (flow < 0 ? inwards : outwards).add(Math.abs(flow));
            double wrong = part.role() == Role.INLET ? flow : -flow;
            if (wrong > 0) {
                reversed.add(f);
                if (wrong > against) {
                    against = wrong;
                    worst = f;
                }
            }
        }
        double both = inwards.value() + outwards.value();
        if (both <= 1e-9 * fastest * area) {
            out.add(new Finding(
                    Severity.WARNING,
                    part.role().word() + " \"" + part.name() + "\" has no flow through it",
                    m.cellCount(),
                    null));
        } else {
            double back = part.role() == Role.INLET ? outwards.value() : inwards.value();
            if (back > 1e-3 * both) {
                out.add(new Finding(
                        Severity.WARNING,
                        "faces of " + part.role().word() + " \"" + part.name() + "\" have flow the wrong way, "
                                + Finding.number(100 * back / both, 2) + " % of what passes",
                        reversed.size(),
                        place(m, worst)));
            }
        }
        return new double[] {through.value(), inwards.value()};
    }

    private static Point place(Mesh m, int face) {
        int node = 3 * m.nodes()[m.begin(face)];
        return new Point(m.xyz()[node], m.xyz()[node + 1], m.xyz()[node + 2]);
    }
}
