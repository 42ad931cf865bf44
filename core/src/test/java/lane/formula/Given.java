package lane.formula;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import lane.mesh.Axis;
import lane.mesh.Point;
import lane.unit.Unit;

/** A scope of given values at one place, for tests. */
final class Given implements Scope {
    private final Map<String, Meaning> meanings = new HashMap<>();
    final Map<Object, double[]> values = new HashMap<>();
    final Map<String, Axis> frames = new HashMap<>(Map.of("", Axis.Z));
    final Map<String, Integer> stations = new HashMap<>(Map.of("rotor", 2, "inlet", 2, "gap", 1, "oil", 3, "taps", 0));

    Given() {
        values.put(Spot.PLACE, new double[] {3, 4, 5});
        values.put(Spot.NORMAL, new double[] {0, 0, 1});
        values.put(Spot.WALL_DISTANCE, new double[] {0.1});
        values.put(Spot.CELL_VOLUME, new double[] {8});
        values.put(Spot.FACE_AREA, new double[] {4});
        stored("p", "Pa", 200);
        stored("rho", "kg/m3", 870);
        stored("u", "m/s", 1, 2, 2);
        stored("T", "K", 300);
        stored("C", "degC", 20);
        stored("mu", "Pa s", 0.1);
        stored("raw", "", 7);
        stored("stress", "MPa", 4, 1, 0, 1, 2, 0, 0, 0, 3);
        stored("sym", "Pa", 1, 2, 3, 4, 5, 6);
        stored("wall shear stress", "Pa", 3, 0, 4);
        stored("f", "Hz", 50);
        stored("omega", "rad/s", 50);
        stored("over", "m", 2);
        stored("dT", "delta degC", 5);
    }

    Given stored(String name, String unit, double... v) {
        meanings.put(name, new Meaning.Stored(name, v.length, Unit.of(unit)));
        values.put(name, v);
        return this;
    }

    Given defined(String name, String formula, String unit) {
        meanings.put(name, new Meaning.Defined(name, Parser.parse(formula), Unit.of(unit)));
        return this;
    }

    @Override
    public Meaning meaning(String name) {
        return meanings.get(name);
    }

    @Override
    public List<String> names() {
        return List.copyOf(meanings.keySet());
    }

    @Override
    public Axis frame(String name) {
        return frames.get(name);
    }

    @Override
    public double time() {
        return 2;
    }

    @Override
    public Meaning.Stored step(Step step) {
        int c = step.type().components() * (step instanceof Step.Gradient ? 3 : 1);
        double[] v = new double[c];
        for (int i = 0; i < c; i++) {
            v[i] = i + 1;
        }
        values.put(step, v);
        if (step instanceof Step.OfLane o && !o.lane().equals("fine")) {
            throw new Trouble("There is no lane \"" + o.lane() + "\".");
        }
        return new Meaning.Stored(step, c, step.type().unit().known() ? Unit.ONE : Unit.UNKNOWN);
    }

    @Override
    public int extent(String station) {
        return stations.getOrDefault(station, -1);
    }

    @Override
    public double[] reduce(Node.Reduction reduction, Type body, String frame) {
        double[] v = new double[reduction.kind().equals("flow") ? 1 : body.components()];
        java.util.Arrays.fill(v, 9);
        return v;
    }

    @Override
    public Table table(String name, String column) {
        if (!name.equals("rake")) {
            throw new Trouble("There is no table \"" + name + "\".");
        }
        return new Table(
                new double[] {0, 1, 3}, new double[] {10, 20, 0}, Type.of(1, Unit.of("m")), Type.of(1, Unit.of("Pa")));
    }

    Compiler.Compiled compile(String text) {
        return Compiler.compile(text, this);
    }

    /** All components of the result, in SI units. */
    double[] si(String text) {
        Program p = compile(text).program();
        Program.Bench bench = p.bench();
        for (int i = 0; i < p.leaves().size(); i++) {
            Program.Leaf leaf = p.leaves().get(i);
            bench.leaf(i)[0] = values.get(leaf.key())[leaf.component()];
        }
        bench.run(1);
        double[] out = new double[p.components()];
        for (int c = 0; c < out.length; c++) {
            out[c] = bench.result(c)[0];
        }
        return out;
    }

    double one(String text) {
        double[] v = si(text);
        if (v.length != 1) {
            throw new AssertionError(text + " has " + v.length + " components");
        }
        return v[0];
    }

    Axis tilted() {
        return new Axis(new Point(1, 0, 0), new Point(1, 0, 0), new Point(0, 1, 0));
    }
}
