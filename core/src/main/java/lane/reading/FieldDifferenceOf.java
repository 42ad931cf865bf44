package lane.reading;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import lane.base.Fault;
import lane.base.LaneException;
import lane.base.Sum;
import lane.estimate.Estimate;
import lane.evaluation.EvaluationContext;
import lane.field.Field;
import lane.field.Run;
import lane.field.Values;
import lane.mesh.CellQuadrature;
import lane.mesh.Mesh;
import lane.provenance.Method;
import lane.provenance.Provenance;
import lane.quantity.Quantity;
import lane.unit.Unit;

/**
 * Norms of the difference of a field from that of another run, on that run's mesh: over its volume, each place by what it stands for, and over
 * its nodes or cells, each counting the same. Places outside of this run are left out, and their share is told.
 *
 * @param quantity key
 * @param datum key of the other run's lane
 */
public record FieldDifferenceOf(String quantity, String datum) implements Ask {
    private static final Method METHOD = new Method("difference of two runs at the places of the second", 1);
    private static final int DEGREE = 4;

    /** By the words that stand behind its name in formulas, in this order. */
    private static final List<String> WORDS =
            List.of("L1", "L2", "Linf", "bias", "L1 over places", "L2 over places", "share outside", "datum's range");

    /** In studies. */
    public static final class Kind implements AskKind {
        @Override
        public String word() {
            return "field-difference";
        }

        @Override
        public Class<FieldDifferenceOf> type() {
            return FieldDifferenceOf.class;
        }
    }

    @Override
    public Form form() {
        return Form.TERMS;
    }

    @Override
    public List<String> stations() {
        return List.of();
    }

    @Override
    public Set<String> quantities() {
        return Set.of(quantity);
    }

    @Override
    public List<String> lanes() {
        return List.of(datum);
    }

    @Override
    public Optional<Apart> apart() {
        return Optional.of(new Apart(quantity, datum));
    }

    @Override
    public List<String> numbers(String name) {
        List<String> out = new ArrayList<>(List.of(name));
        WORDS.forEach(w -> out.add(name + " " + w));
        return out;
    }

    @Override
    public Outcome read(Reading reading, ReadingContext on) {
        Run other = on.lens().beyond().run(datum);
        if (other == null) {
            throw new LaneException(
                    Fault.MISSING,
                    "A field differs from that of another run, and \"" + datum + "\" is none here; choose a run.");
        }
        if (other.key().equals(on.run().key())) {
            throw new LaneException(Fault.NO_VALUE, "This lane is the datum itself.");
        }
        Quantity q = on.quantity(quantity);
        EvaluationContext lens = on.lens();
        FieldDifference.Result made = FieldDifference.difference(on.run(), other, q, lens, on.work());
        Field field = made.run().field(FieldDifference.DIFFERENCE).orElseThrow();
        Norms norms = norms(made.run().mesh(), field);
        if (norms.places == 0) {
            throw new LaneException(Fault.OUTSIDE, "No place of \"" + datum + "\" lies in this run.");
        }
        Unit shown = Outcome.shown(
                reading.unit(), at(on.run(), q, on).unit().forInterval(), "Reading \"" + reading.name() + "\"");
        double range = range(other, q, lens, on);
        String over = field.at() == Field.At.NODE ? "nodes" : "cells";
        List<Scalar> all = List.of(
                scalar("L1", norms.l1, range, shown, "mean magnitude over the volume"),
                scalar("L2", norms.l2, range, shown, "root mean square over the volume"),
                scalar("Linf", norms.most, range, shown, "largest magnitude"),
                scalar("bias", norms.bias, range, shown, "mean over the volume"),
                scalar("L1 over places", norms.plain1, range, shown, "mean magnitude over " + over),
                scalar("L2 over places", norms.plain2, range, shown, "root mean square over " + over),
                new Scalar(
                        "share outside",
                        new Estimate(made.outside(), Unit.ONE),
                        "of " + over + " that lie outside of this run"),
                new Scalar("datum's range", new Estimate(range, shown), ""));
        return new Several(
                all,
                1,
                List.of(),
                "of " + norms.places + " " + over,
                1 - made.outside(),
                trail(on, other, q)
                        .then("reading", METHOD, "{what} less that of {datum}", settings(q, other, shown, on)));
    }

    private Map<String, Object> settings(Quantity q, Run other, Unit shown, ReadingContext on) {
        var out = new LinkedHashMap<String, Object>();
        out.put("what", q.name());
        out.put("datum", datum);
        out.put("definition", this);
        out.put("unit", shown.label());
        if (on.run().stated().turn() != null || other.stated().turn() != null) {
            out.put("axis", on.lens().axis());
        }
        return out;
    }

    /** How both values came about, with all that the quantity looks up: as at one place, which is the same at all. */
    private static Provenance trail(ReadingContext on, Run other, Quantity q) {
        Provenance own = at(on.run(), q, on).trail();
        Provenance its = at(other, q, on).trail();
        List<Provenance.Step> steps = new ArrayList<>(on.trail().steps());
        steps.addAll(own.steps());
        steps.addAll(its.steps());
        Provenance all = on.trail().with(own).with(its).reading(other.inputs());
        return new Provenance(all.inputs(), steps);
    }

    private static Profile at(Run run, Quantity q, ReadingContext on) {
        double[] place = java.util.Arrays.copyOf(run.mesh().xyz(), 3);
        return FieldDifference.values(run, place, q, on.lens(), on.work());
    }

    private static Scalar scalar(String what, double v, double range, Unit unit, String remark) {
        return new Scalar(what, new Estimate(v, unit), range > 0 ? v / range : Double.NaN, remark);
    }

    private static double range(Run other, Quantity q, EvaluationContext lens, ReadingContext on) {
        Profile p = FieldDifference.values(other, other.mesh().xyz(), q, lens, on.work());
        return p.range();
    }

    private record Norms(double l1, double l2, double most, double bias, double plain1, double plain2, int places) {}

    /** Over cells all of whose nodes have values, by a rule of degree 4 of what lies between them. */
    private static Norms norms(Mesh mesh, Field field) {
        Values.Held v = field.values().now();
        var one = new Sum();
        var two = new Sum();
        double most = 0;
        int places = 0;
        for (int i = 0; i < v.length(); i++) {
            double d = v.get(i);
            if (!Double.isNaN(d)) {
                one.add(Math.abs(d));
                two.add(d * d);
                most = Math.max(most, Math.abs(d));
                places++;
            }
        }
        var volume = new Sum();
        var first = new Sum();
        var second = new Sum();
        var bias = new Sum();
        boolean nodal = field.at() == Field.At.NODE;
        var rule = new CellQuadrature(mesh, DEGREE);
        for (int c = 0; c < mesh.cellCount(); c++) {
            if (mesh.shape(c).dimension() != mesh.dimension()) {
                continue;
            }
            rule.load(c);
            double size = 0;
            double a = 0;
            double b = 0;
            double s = 0;
            for (int q = 0; q < rule.size(); q++) {
                rule.at(q);
                double d = nodal ? 0 : v.get(c);
                for (int k = 0; nodal && k < rule.cell().size(); k++) {
                    d += rule.weights()[k] * v.get(rule.cell().node(k));
                }
                size += rule.weight();
                a += rule.weight() * Math.abs(d);
                b += rule.weight() * d * d;
                s += rule.weight() * d;
            }
            if (!Double.isNaN(a)) {
                volume.add(size);
                first.add(a);
                second.add(b);
                bias.add(s);
            }
        }
        double all = volume.value();
        return new Norms(
                first.value() / all,
                Math.sqrt(second.value() / all),
                most,
                bias.value() / all,
                one.value() / places,
                Math.sqrt(two.value() / places),
                places);
    }
}
