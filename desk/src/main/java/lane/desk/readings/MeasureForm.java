package lane.desk.readings;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.DoubleFunction;
import javafx.scene.Node;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import lane.base.LaneException;
import lane.desk.Session;
import lane.desk.Ui;
import lane.measure.By;
import lane.measure.Flow;
import lane.measure.Flow.Carried;
import lane.measure.Force;
import lane.measure.Integral;
import lane.measure.Loads;
import lane.measure.Loads.On;
import lane.measure.Mean;
import lane.measure.Measure;
import lane.measure.Newtonian;
import lane.mesh.Axis;
import lane.mesh.Point;
import lane.quantity.Quantity;

/** The settings of a measure, of a tally or of a balance's term: its kind and what that kind needs. */
public final class MeasureForm {
    private final Session session;
    private final String id;
    private final Consumer<Measure> changed;
    private final VBox box = new VBox(6);
    /** Whether quantities of three numbers are offered where one number is taken of them, for their components. */
    private final boolean components;

    private MeasureForm(Session session, String id, boolean components, Consumer<Measure> changed) {
        this.session = session;
        this.id = id;
        this.components = components;
        this.changed = changed;
    }

    /** @param id starts the ids of the form's fields */
    static Node of(Session session, String id, Measure measure, Consumer<Measure> changed) {
        return of(new MeasureForm(session, id, false, changed), measure);
    }

    /** The same of a measure that is taken of each component of a vector. */
    static Node ofVectors(Session session, String id, Measure measure, Consumer<Measure> changed) {
        return of(new MeasureForm(session, id, true, changed), measure);
    }

    /** Loads alone, without a kind of number that is taken of them. */
    static Node ofLoads(Session session, String id, Loads now, Consumer<Loads> changed) {
        var form = new MeasureForm(session, id, false, m -> changed.accept(((Force) m).loads()));
        form.loads(now, l -> new Force(l, Point.along(0)));
        return form.box;
    }

    private static Node of(MeasureForm form, Measure measure) {
        MeasureEntry entry = MeasureEntry.ALL.of(measure);
        List<MeasureEntry.Choice> all = MeasureEntry.ALL.all().stream()
                .flatMap(e -> e.choices().stream())
                .toList();
        MeasureEntry.Choice now = all.stream()
                .filter(c -> c.title().equals(entry.title(measure)))
                .findFirst()
                .orElseThrow();
        form.line(
                "Measure",
                Ui.choice(form.id + "-kind", all, now, MeasureEntry.Choice::title, c -> form.become(c, measure)));
        entry.rows(form, measure);
        form.values(measure);
        return form.box;
    }

    /** Whose values a number is taken of, where there is a choice. */
    private void values(Measure measure) {
        List<By> choices = Arrays.stream(By.values())
                .filter(b -> measure.by(b).isPresent())
                .toList();
        if (choices.size() > 1) {
            line(
                    "Values",
                    Ui.choice(
                            id + "-values",
                            choices,
                            measure.by().orElseThrow(),
                            By::choice,
                            b -> attempt(() -> measure.by(b).orElseThrow())));
        }
    }

    private void become(MeasureEntry.Choice choice, Measure now) {
        Optional<? extends Measure> next = choice.first().apply(session).map(m -> vectored(m));
        if (next.isEmpty()) {
            session.say("A " + choice.title() + " cannot be taken: " + choice.needs());
        }
        changed.accept(next.isPresent() ? next.get() : now);
    }

    /** A mean or an integral begins with a vector where its components are asked for. */
    private Measure vectored(Measure measure) {
        Optional<String> first =
                MeasureChoices.vectors(session).stream().map(Quantity::id).findFirst();
        return !components || first.isEmpty()
                ? measure
                : switch (measure) {
                    case Mean _ -> new Mean(first.get());
                    case Integral _ -> new Integral(first.get());
                    default -> measure;
                };
    }

    /** A quantity with one number. */
    void scalar(String now, java.util.function.Function<String, Measure> make) {
        quantity("of", components ? MeasureChoices.vectors(session) : MeasureChoices.scalars(session), now, make);
    }

    /** A quantity that says yes or no. */
    void condition(String now, java.util.function.Function<String, Measure> make) {
        quantity("of", MeasureChoices.conditions(session), now, make);
    }

    /** A share that is typed in percent. */
    void percent(String caption, double now, DoubleFunction<Measure> make) {
        var field = Ui.number(id + "-percent", 100 * now, v -> attempt(() -> make.apply(v / 100)));
        field.setPrefWidth(72);
        line(caption, field, Ui.label("%", "muted"));
    }

    /** A number in a unit that is told behind it. */
    void value(String caption, String field, double now, String unit, DoubleFunction<Measure> make) {
        var made = Ui.number(id + "-" + field, now, unit, v -> attempt(() -> make.apply(v)));
        made.setPrefWidth(78);
        line(caption, made, Ui.label(unit, "muted"));
    }

    /** Words. */
    void text(String caption, String field, String now, java.util.function.Function<String, Measure> make) {
        var made = Ui.text(id + "-" + field, now, t -> attempt(() -> make.apply(t)));
        made.setPrefWidth(190);
        line(caption, made);
    }

    /** A quantity with one number in a unit, or none under a word of its own. */
    void inUnit(
            String caption,
            String field,
            String unit,
            String now,
            String none,
            java.util.function.Function<String, Measure> make) {
        orNone(caption, field, MeasureChoices.inUnit(session, unit), now, none, make);
    }

    /** A quantity that is one number a lane. */
    void single(String now, java.util.function.Function<String, Measure> make) {
        quantity("of", MeasureChoices.singles(session), now, make);
    }

    /** A quantity with three. */
    void vector(String caption, String now, java.util.function.Function<String, Measure> make) {
        quantity(caption, MeasureChoices.vectors(session), now, make);
    }

    /** One of a few. */
    <T> void choice(
            String caption,
            List<T> all,
            T now,
            java.util.function.Function<T, String> word,
            java.util.function.Function<T, Measure> make) {
        line(caption, Ui.segments(all, now, word, t -> changed.accept(make.apply(t))));
    }

    /** A quantity, such as a condition, that may be left out. */
    void optional(String caption, String now, java.util.function.Function<String, Measure> make) {
        orNone(caption, caption, MeasureChoices.scalars(session), now, "everywhere", make);
    }

    /** One of the quantities, or none of them under a word of its own. */
    private void orNone(
            String caption,
            String field,
            List<Quantity> all,
            String now,
            String none,
            java.util.function.Function<String, Measure> make) {
        var ids = new java.util.ArrayList<>(List.of(""));
        all.forEach(q -> ids.add(q.id()));
        if (!ids.contains(now)) {
            ids.add(now);
        }
        var choice = Ui.choice(
                id + "-" + field,
                ids,
                now,
                k -> k.isBlank()
                        ? none
                        : session.study().quantity(k).map(Quantity::name).orElse(k),
                k -> changed.accept(make.apply(k)));
        choice.setMaxWidth(200);
        line(caption, choice);
    }

    private void line(String caption, Node... nodes) {
        HBox row = Ui.row(6, Ui.left(caption, 78, "second"));
        row.getChildren().addAll(nodes);
        box.getChildren().add(row);
    }

    private void quantity(
            String caption, List<Quantity> among, String now, java.util.function.Function<String, Measure> make) {
        Quantity chosen = session.study().quantity(now).orElse(null);
        var choice = Ui.choice(
                id + (caption.equals("of") ? "-quantity" : "-vector"),
                among,
                chosen,
                q -> q == null ? "?" : q.name(),
                q -> changed.accept(make.apply(q.id())));
        choice.setMaxWidth(200);
        line(caption, choice);
    }

    void flow(Flow f) {
        quantity(
                "of",
                MeasureChoices.vectors(session),
                f.vector(),
                q -> new Flow(q, f.factor(), f.factorUnit(), f.carried(), f.axis()));
        var factor = number("factor", f.factor(), v -> new Flow(f.vector(), v, f.factorUnit(), f.carried(), f.axis()));
        var unit = Ui.text(
                id + "-factor-unit",
                f.factorUnit(),
                u -> attempt(() -> {
                    lane.unit.Unit.of(u);
                    return new Flow(f.vector(), f.factor(), u, f.carried(), f.axis());
                }));
        unit.setMaxWidth(80);
        line("Density", factor, unit);
        line(
                "Carries",
                Ui.segments(
                        List.of(Carried.values()),
                        f.carried(),
                        c -> c == Carried.NOTHING ? "itself" : "angular momentum",
                        c -> changed.accept(new Flow(f.vector(), f.factor(), f.factorUnit(), c, f.axis()))));
        if (f.carried() == Carried.ANGULAR_MOMENTUM) {
            axis(f.axis(), a -> new Flow(f.vector(), f.factor(), f.factorUnit(), f.carried(), a));
        }
    }

    void loads(Loads l, java.util.function.Function<Loads, Measure> make) {
        load(
                "Pressure",
                "pressure",
                1,
                l.pressure(),
                p -> make.apply(new Loads(p, l.reference(), l.shear(), l.shearActsOn(), l.on(), l.gradient())));
        if (!l.pressure().isBlank()) {
            line(
                    "less, Pa",
                    number(
                            "reference",
                            l.reference(),
                            v -> make.apply(
                                    new Loads(l.pressure(), v, l.shear(), l.shearActsOn(), l.on(), l.gradient()))));
        }
        String velocity = MeasureChoices.velocities(session).stream()
                .findFirst()
                .map(Quantity::id)
                .orElse("");
        Newtonian formed = l.gradient();
        line(
                "Viscous",
                Ui.segments(
                        List.of(false, true),
                        formed != null,
                        from -> from ? "gradient" : "wall shear",
                        from -> changed.accept(make.apply(new Loads(
                                l.pressure(),
                                l.reference(),
                                from ? "" : l.shear(),
                                l.shearActsOn(),
                                l.on(),
                                from ? new Newtonian(velocity, "", 0) : null)))));
        if (formed != null) {
            newtonian(formed, g -> make.apply(new Loads(l.pressure(), l.reference(), "", l.shearActsOn(), l.on(), g)));
        } else {
            load(
                    "Wall shear",
                    "shear",
                    3,
                    l.shear(),
                    s -> make.apply(new Loads(l.pressure(), l.reference(), s, l.shearActsOn(), l.on())));
            stored(l, make);
        }
        line(
                "Reported",
                acting(
                        l.on(),
                        o -> make.apply(
                                new Loads(l.pressure(), l.reference(), l.shear(), l.shearActsOn(), o, l.gradient()))));
    }

    private void stored(Loads l, java.util.function.Function<Loads, Measure> make) {
        if (l.shear().isBlank()) {
            return;
        }
        String said = MeasureChoices.saidAtIntake(session, l.shear());
        line(
                "stored as",
                said.isBlank()
                        ? acting(
                                l.shearActsOn(),
                                o -> make.apply(new Loads(l.pressure(), l.reference(), l.shear(), o, l.on())))
                        : Ui.label(said, "second", "muted"));
    }

    private void newtonian(Newtonian g, java.util.function.Function<Newtonian, Measure> make) {
        orNone(
                "of",
                "velocity",
                MeasureChoices.velocities(session),
                g.velocity(),
                "none",
                v -> make.apply(new Newtonian(v, g.viscosity(), g.value())));
        inUnit(
                "Viscosity",
                "viscosity",
                "Pa s",
                g.viscosity(),
                "stated",
                k -> make.apply(new Newtonian(g.velocity(), k, g.value())));
        if (g.viscosity().isBlank()) {
            value("is", "mu", g.value(), "Pa s", v -> make.apply(new Newtonian(g.velocity(), "", v)));
        }
    }

    private HBox acting(On now, java.util.function.Function<On, Measure> make) {
        return Ui.segments(List.of(On.values()), now, o -> "on " + o.word(), o -> changed.accept(make.apply(o)));
    }

    private void load(
            String caption,
            String field,
            int components,
            String now,
            java.util.function.Function<String, Measure> make) {
        orNone(caption, field, MeasureChoices.pascals(session, components), now, "none", make);
    }

    void axis(Axis axis, java.util.function.Function<Axis, Measure> make) {
        point("Axis along", "axis", axis.direction(), p -> make.apply(new Axis(axis.origin(), unit(p))));
        point("through, m", "origin", axis.origin(), p -> make.apply(new Axis(p, axis.direction())));
    }

    void point(String caption, String field, Point p, java.util.function.Function<Point, Measure> make) {
        line(
                caption,
                number(field + "-x", p.x(), v -> make.apply(new Point(v, p.y(), p.z()))),
                number(field + "-y", p.y(), v -> make.apply(new Point(p.x(), v, p.z()))),
                number(field + "-z", p.z(), v -> make.apply(new Point(p.x(), p.y(), v))));
    }

    private Node number(String field, double now, DoubleFunction<Measure> make) {
        var made = Ui.number(id + "-" + field, now, v -> attempt(() -> make.apply(v)));
        made.setMaxWidth(66);
        return made;
    }

    /** What cannot be is told and leaves the measure as it was. */
    private void attempt(java.util.function.Supplier<Measure> make) {
        try {
            changed.accept(make.get());
        } catch (LaneException e) {
            session.say(e.getMessage());
        }
    }

    static Point unit(Point p) {
        double n = p.norm();
        if (!(n > 0)) {
            throw new LaneException("A direction cannot be 0, 0, 0; change another of its numbers first.");
        }
        return p.times(1 / n);
    }
}
