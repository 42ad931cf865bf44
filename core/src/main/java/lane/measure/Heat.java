package lane.measure;

import java.util.LinkedHashSet;
import java.util.Set;
import lane.base.Fault;
import lane.base.LaneException;
import lane.evaluation.EvaluationContext;
import lane.evaluation.SurfaceIntegral;
import lane.measure.Flow.Carried;
import lane.mesh.Axis;
import lane.quantity.Quantity;
import lane.unit.Unit;

/**
 * Heat that is conducted through a surface, from the gradient of a temperature: the integral of {@code -k grad(T) . n}. First order
 * in the size of the cells at a boundary, as gradients are there.
 *
 * @param temperature key of a quantity
 * @param conductivity key of a quantity; blank where {@code value} is it
 * @param value conductivity in W/(m K), where it is the same everywhere; 0 for none
 */
public record Heat(String temperature, String conductivity, double value) implements Measure {
    private static final Unit WATT = Unit.of("W");
    private static final Unit CONDUCTIVITY = Unit.of("W/(m K)");

    /** In studies. */
    public static final class Kind implements MeasureKind {
        @Override
        public String word() {
            return "heat";
        }

        @Override
        public Class<Heat> type() {
            return Heat.class;
        }
    }

    public Heat {
        conductivity = conductivity == null ? "" : conductivity;
    }

    @Override
    public String word() {
        return "heat conducted by " + temperature;
    }

    @Override
    public String sign() {
        return "positive leaves the run";
    }

    @Override
    public Set<String> quantities() {
        Set<String> out = new LinkedHashSet<>(Set.of(temperature));
        if (!conductivity.isBlank()) {
            out.add(conductivity);
        }
        return out;
    }

    @Override
    public Measured over(SurfaceIntegral surface) {
        EvaluationContext lens = surface.lens();
        Unit unit = surface.ready(temperature).number().unit();
        if (!unit.comparable(Unit.of("K"))) {
            throw new LaneException(
                    Fault.UNIT,
                    "Quantity \"" + lens.quantity(temperature).name() + "\" is used as a temperature but its unit is "
                            + unit.label() + "; state one at Quantities.");
        }
        String k;
        if (conductivity.isBlank()) {
            if (!(value > 0)) {
                throw new LaneException(
                        Fault.MISSING,
                        "Conducted heat needs a conductivity; state a number in W/(m K), or choose a quantity.");
            }
            k = value + " \"W/(m K)\"";
        } else {
            Unit of = surface.ready(conductivity).number().unit();
            if (!of.comparable(CONDUCTIVITY)) {
                throw new LaneException(
                        Fault.UNIT,
                        "Quantity \"" + lens.quantity(conductivity).name()
                                + "\" is used as a conductivity but its unit is " + of.label()
                                + "; it is one of W/(m K).");
            }
            k = lens.named(conductivity);
        }
        var flux = new Quantity(
                "heat conducted by " + temperature + " " + k,
                "heat flux",
                "-(" + k + ") * grad(" + lens.named(temperature) + ")",
                "",
                "");
        Measured made = new Flow(flux.id(), 1, "1", Carried.NOTHING, Axis.Z).over(surface.through(lens.with(flux)));
        // Along curves of a curved surface it is heat a length.
        Unit watt = made.natural().comparable(WATT) ? WATT : made.natural();
        String stated = conductivity.isBlank()
                ? ", conductivity " + lane.mesh.Finding.number(value, 6) + " W/(m K), stated"
                : "";
        return new Measured(
                made.value(),
                watt,
                made.pieces(),
                made.sign(),
                made.place() + stated + ", gradient of first order at walls");
    }
}
