package lane.measure;

import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import lane.base.Fault;
import lane.base.LaneException;
import lane.evaluation.EvaluationContext;
import lane.evaluation.SurfaceIntegral;
import lane.quantity.Quantity;
import lane.unit.Unit;

/**
 * The viscous stress of a fluid whose stress is proportional to how fast it is sheared, from the gradient of its velocity:
 * {@code tau = 2 mu (sym grad U - 1/3 div U)}, and the force on the wall {@code -tau n} with n out of the fluid.
 *
 * @param velocity key of a vector
 * @param viscosity key of a quantity; blank where {@code value} is it
 * @param value dynamic viscosity in Pa s, where it is the same everywhere; 0 for none
 */
public record Newtonian(String velocity, String viscosity, double value) {
    private static final Unit PASCAL_SECOND = Unit.of("Pa s");

    public Newtonian {
        viscosity = viscosity == null ? "" : viscosity;
    }

    Set<String> quantities() {
        return Stream.of(velocity, viscosity).filter(s -> !s.isBlank()).collect(Collectors.toUnmodifiableSet());
    }

    /** The force on the wall by area, as a quantity on boundaries. */
    Quantity onWall(SurfaceIntegral over) {
        if (velocity.isBlank()) {
            throw new LaneException(
                    Fault.MISSING,
                    "Viscous forces from a gradient need a velocity; choose a vector whose unit is one of speed, and state"
                            + " that unit at Quantities where the file says none.");
        }
        EvaluationContext lens = over.lens();
        Unit speed = over.ready(velocity).vector().unit();
        if (!speed.comparable(Unit.of("m/s"))) {
            throw new LaneException(
                    Fault.UNIT,
                    "Quantity \"" + lens.quantity(velocity).name() + "\" is used as a velocity but its unit is "
                            + speed.label() + "; state one of speed at Quantities.");
        }
        String mu = viscosity(over);
        return new Quantity(
                "viscous stress of " + velocity + " " + mu,
                "viscous stress",
                "-2 * (" + mu + ") * dot(deviator(symmetric(grad(" + lens.named(velocity) + "))), normal)",
                "",
                "");
    }

    private String viscosity(SurfaceIntegral over) {
        if (viscosity.isBlank()) {
            if (!(value > 0)) {
                throw new LaneException(
                        Fault.MISSING,
                        "Viscous forces from the gradient of a velocity need a dynamic viscosity; state a number in"
                                + " Pa s, or choose a quantity.");
            }
            return value + " \"Pa s\"";
        }
        Unit of = over.ready(viscosity).number().unit();
        String name = over.lens().quantity(viscosity).name();
        if (of.known() && of.dimension().equals(Unit.of("m2/s").dimension())) {
            throw new LaneException(
                    Fault.UNIT,
                    "Quantity \"" + name + "\" is a kinematic viscosity in " + of.symbol()
                            + "; multiply it by the density to get a force.");
        }
        if (!of.comparable(PASCAL_SECOND)) {
            throw new LaneException(
                    Fault.UNIT,
                    "Quantity \"" + name + "\" is used as a dynamic viscosity but its unit is " + of.label()
                            + "; it is one of Pa s.");
        }
        return over.lens().named(viscosity);
    }

    /** In words, for beside the number. */
    String note() {
        return ", viscous part from the gradient of the velocity, of first order at walls"
                + (viscosity.isBlank() ? ", viscosity " + lane.mesh.Finding.number(value, 6) + " Pa s, stated" : "");
    }
}
