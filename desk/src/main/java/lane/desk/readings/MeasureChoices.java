package lane.desk.readings;

import java.util.List;
import java.util.Optional;
import lane.desk.Session;
import lane.field.Field;
import lane.field.Run;
import lane.formula.Type;
import lane.measure.Flow;
import lane.measure.Flow.Carried;
import lane.measure.Loads;
import lane.measure.Loads.On;
import lane.measure.Mean;
import lane.measure.Measure;
import lane.measure.Newtonian;
import lane.quantity.Quantity;
import lane.station.OnPart;
import lane.study.Study;
import lane.unit.Unit;

/** Which quantities of the study fit which measure, told by their components and units. */
final class MeasureChoices {
    private MeasureChoices() {}

    /** Quantities with one number. */
    static List<Quantity> scalars(Session session) {
        return session.numbers();
    }

    /** Those that say yes or no. */
    static List<Quantity> conditions(Session session) {
        return session.study().quantities().stream()
                .filter(q -> session.offered().is(q, Type::truth))
                .toList();
    }

    /** Those that are one number a lane, told by their formulas, without computing any. */
    static List<Quantity> singles(Session session) {
        return session.study().quantities().stream()
                .filter(q -> session.isOf(q, 1))
                .filter(q -> session.offered().single(q))
                .toList();
    }

    static Optional<Quantity> single(Session session) {
        return singles(session).stream().findFirst();
    }

    /** Quantities with three. */
    static List<Quantity> vectors(Session session) {
        return session.offered().that(t -> t.components() == 3);
    }

    static List<Quantity> tensors(Session session) {
        return session.offered().that(t -> t.components() == 9 || t.components() == 6);
    }

    /** Temperatures, but no differences of them. */
    static List<Quantity> temperatures(Session session) {
        return inUnit(session, "K").stream()
                .filter(q -> session.offered().is(q, t -> t.points() == 1))
                .toList();
    }

    /** Quantities with one number in a unit. */
    static List<Quantity> inUnit(Session session, String unit) {
        Unit wanted = Unit.of(unit);
        return session.offered().that(t -> t.components() == 1 && t.unit().comparable(wanted));
    }

    /** Vectors whose unit is one of speed. */
    static List<Quantity> velocities(Session session) {
        Unit speed = Unit.of("m/s");
        return vectors(session).stream()
                .filter(q -> session.offered().is(q, t -> t.unit().comparable(speed)))
                .toList();
    }

    /** Stresses with so many components: a pressure has one, a wall shear three. */
    static List<Quantity> pascals(Session session, int components) {
        Unit pascal = Unit.of("Pa");
        return session.offered()
                .that(t -> t.components() == components && t.unit().comparable(pascal));
    }

    /** On whom a stored stress acts, where it was said at Intake for all runs that have it; else blank. */
    static String saidAtIntake(Session session, String quantity) {
        String name = session.study()
                .quantity(quantity)
                .flatMap(q -> session.lens().fields(q).stream().findFirst())
                .orElse("");
        List<Boolean> said = session.results().runs().values().stream()
                .filter(r -> field(r, name).isPresent())
                .map(r -> r.stated().onWall().get(name))
                .distinct()
                .toList();
        return said.isEmpty() || said.contains(null)
                ? ""
                : said.size() > 1
                        ? "as said of each run at Intake"
                        : "on " + (said.getFirst() ? "the wall" : "the fluid") + ", as said at Intake";
    }

    private static Optional<Field> field(Run run, String name) {
        return run.field(name).or(() -> run.parts().stream()
                .map(p -> p.field(name))
                .flatMap(Optional::stream)
                .findFirst());
    }

    /** A measure in a few words. */
    static String word(Study study, Measure measure) {
        String what = measure.quantities().stream()
                .sorted()
                .map(q -> AskForm.quantity(study, q))
                .collect(java.util.stream.Collectors.joining(", "));
        return MeasureEntry.ALL.of(measure).words(measure, what);
    }

    /** Whether some run has all quantities of a measure on a part. */
    static boolean on(Session session, Measure measure, OnPart station) {
        return session.results().known().anyMatch(run -> run.parts().stream()
                .filter(p -> p.name().equals(station.part()))
                .anyMatch(p -> measure.quantities().stream()
                        .flatMap(q -> session.study().quantity(q).stream())
                        .flatMap(q -> session.lens().fields(q).stream())
                        .filter(f -> field(run, f).isPresent())
                        .allMatch(f -> run.field(f).isPresent() || p.field(f).isPresent())));
    }

    static Optional<Mean> mean(Session session) {
        // A condition is a number too, but hardly what is wanted first.
        List<Quantity> conditions = conditions(session);
        return scalars(session).stream()
                .filter(q -> !conditions.contains(q))
                .findFirst()
                .or(() -> scalars(session).stream().findFirst())
                .map(q -> new Mean(q.id()));
    }

    static Optional<Flow> flow(Session session) {
        return vectors(session).stream()
                .findFirst()
                .map(q -> new Flow(
                        q.id(), 1, "1", Carried.NOTHING, session.study().axis()));
    }

    static Optional<Loads> loads(Session session) {
        String pressure =
                pascals(session, 1).stream().findFirst().map(Quantity::id).orElse("");
        String shear =
                pascals(session, 3).stream().findFirst().map(Quantity::id).orElse("");
        if (pressure.isBlank() && shear.isBlank()) {
            // Without stresses there is still what a velocity tells.
            return velocities(session).stream()
                    .findFirst()
                    .map(v -> new Loads("", 0, "", On.FLUID, On.WALL, new Newtonian(v.id(), "", 0)));
        }
        return Optional.of(new Loads(pressure, 0, shear, On.FLUID, On.WALL));
    }

    /** What is missing when none fits, with the way to it. */
    static String needs(boolean vector, boolean load) {
        return vector
                ? "no run has a vector field; a formula such as [u, v, 0] at Quantities makes one of its components."
                : load
                        ? "no field is a pressure or a wall shear in Pa; state the unit of yours at Intake, where the file says none."
                        : "no run has a field with numbers; add a run at Intake.";
    }
}
