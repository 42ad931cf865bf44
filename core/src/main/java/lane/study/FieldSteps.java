package lane.study;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.Supplier;
import lane.base.Memo;
import lane.evaluation.BoundQuantity;
import lane.evaluation.EvaluationContext;
import lane.evaluation.SamplePoints;
import lane.field.Field;
import lane.field.Gradient;
import lane.field.Part;
import lane.field.Run;
import lane.field.Values;
import lane.formula.Compiler;
import lane.formula.Node;
import lane.formula.Printer;
import lane.formula.Scope;
import lane.mesh.Neighbours;
import lane.quantity.Quantity;
import lane.unit.Unit;

/** Fields that a formula computes out of others on one run: gradients, jumps between neighbours, the distance of walls. */
final class FieldSteps {
    private final Memo memo;

    FieldSteps(Memo memo) {
        this.memo = memo;
    }

    private record StepKey(Object run, List<Object> depends, String kind, Object other) {}

    /** The body of a step as a quantity of its own. */
    static Quantity body(Node node, String frame) {
        Node seen = new Node.Call(Compiler.SEEN, List.of(node), node.span(), node.span());
        Node framed = frame.isEmpty() ? node : new Node.InFrame(seen, frame, node.span(), node.span());
        return new Quantity("~", "~", Printer.text(framed), "", "");
    }

    /** A computed field, known by what it was computed from, so that it may be let go of and made again. */
    private Field kept(StepKey key, Supplier<Field> make) {
        return memo.of(key, make).named(key);
    }

    private static Field field(String name, double[][] components, boolean byNode) {
        int c = components.length;
        double[] all = new double[c * components[0].length];
        for (int k = 0; k < c; k++) {
            for (int i = 0; i < components[k].length; i++) {
                all[i * c + k] = components[k][i];
            }
        }
        return new Field(name, byNode ? Field.At.NODE : Field.At.CELL, c, Unit.ONE, Values.of(all));
    }

    Field wallDistance(Run run) {
        return kept(new StepKey(run.key(), List.of(), "wall distance", ""), () -> lane.cut.WallDistance.of(run));
    }

    Field jump(Run run, Scope.Step.Jump j, EvaluationContext lens) {
        BoundQuantity ready = BoundQuantity.of(run, body(j.body(), j.frame()), lens);
        return kept(new StepKey(run.key(), List.of(ready.depends()), "jump", Printer.text(j.body())), () -> {
            double[] v = ready.values(SamplePoints.cells(run))[0];
            return new Field(
                    "jump of " + Printer.text(j.body()),
                    Field.At.CELL,
                    1,
                    Unit.ONE,
                    Values.of(Neighbours.of(run.mesh()).greatest(v)));
        });
    }

    Field gradient(Run run, Scope.Step.Gradient g, EvaluationContext lens) {
        BoundQuantity ready = BoundQuantity.of(run, body(g.body(), g.frame()), lens);
        return kept(new StepKey(run.key(), List.of(ready.depends()), "grad", ""), () -> {
            Field f = field("body", ready.onMesh(), ready.byNode());
            double[] v = ((Values.Doubles) f.values()).array();
            int c = f.components();
            double[] made = ready.byNode()
                    ? Gradient.atNodes(run.mesh(), v, c)
                    : Gradient.inCells(run.mesh(), v, c, boundary(run, ready, g, lens));
            String name = "gradient of " + Printer.text(g.body());
            return new Field(name, f.at(), 3 * c, Unit.ONE, Values.of(made));
        });
    }

    /** Values on the faces of parts that have the fields themselves. */
    private Gradient.OnBoundary boundary(Run run, BoundQuantity ready, Scope.Step.Gradient g, EvaluationContext lens) {
        List<int[]> owners = new ArrayList<>();
        List<double[]> xyz = new ArrayList<>();
        List<double[]> values = new ArrayList<>();
        int c = ready.type().components();
        for (Part part : run.parts()) {
            boolean own =
                    ready.fields().stream().allMatch(f -> part.field(f.name()).isPresent());
            if (!own || part.unmatched() > 0) {
                continue;
            }
            BoundQuantity there = BoundQuantity.of(run, part, body(g.body(), g.frame()), lens);
            double[][] v = there.onFaces(part);
            owners.add(part.owner());
            double[] places = new double[3 * part.owner().length];
            double[] all = new double[c * part.owner().length];
            var cell = new lane.mesh.Cell(part.surface());
            double[] m = new double[3];
            for (int f = 0; f < part.owner().length; f++) {
                cell.load(f).centre(m);
                System.arraycopy(m, 0, places, 3 * f, 3);
                for (int k = 0; k < c; k++) {
                    all[f * c + k] = v[k][f];
                }
            }
            xyz.add(places);
            values.add(all);
        }
        return new Gradient.OnBoundary(
                owners.stream().flatMapToInt(Arrays::stream).toArray(),
                xyz.stream().flatMapToDouble(Arrays::stream).toArray(),
                values.stream().flatMapToDouble(Arrays::stream).toArray());
    }
}
