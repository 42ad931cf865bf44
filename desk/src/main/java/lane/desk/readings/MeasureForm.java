package lane.desk.readings;

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
import lane.mesh.Axis;
import lane.mesh.Point;
import lane.quantity.Quantity;
import lane.reading.Measure;

/** The settings of a measure, of a tally or of a balance's term: its kind and what that kind needs. */
final class MeasureForm {
    private enum Kind {
        AREA("area"),
        MEAN("mean"),
        WEIGHTED("mean by flow"),
        GREATEST("greatest value"),
        LEAST("least value"),
        INTEGRAL("integral"),
        FLOW("flow"),
        FORCE("force"),
        MOMENT("moment");

        private final String word;

        Kind(String word) {
            this.word = word;
        }

        static Kind of(Measure measure) {
            return switch (measure) {
                case Measure.Area _ -> AREA;
                case Measure.Mean _ -> MEAN;
                case Measure.WeightedMean _ -> WEIGHTED;
                case Measure.Extreme e -> e.greatest() ? GREATEST : LEAST;
                case Measure.Integral _ -> INTEGRAL;
                case Measure.Flow _ -> FLOW;
                case Measure.Force _ -> FORCE;
                case Measure.Moment _ -> MOMENT;
            };
        }
    }

    private final Session session;
    private final String id;
    private final Consumer<Measure> changed;
    private final VBox box = new VBox(6);

    private MeasureForm(Session session, String id, Consumer<Measure> changed) {
        this.session = session;
        this.id = id;
        this.changed = changed;
    }

    /** @param id starts the ids of the form's fields */
    static Node of(Session session, String id, Measure measure, Consumer<Measure> changed) {
        var form = new MeasureForm(session, id, changed);
        var kind = Ui.choice(
                id + "-kind", List.of(Kind.values()), Kind.of(measure), k -> k.word, k -> form.become(k, measure));
        form.line("Measure", kind);
        switch (measure) {
            case Measure.Area _ -> {}
            case Measure.Mean m -> form.quantity("of", Measures.scalars(session), m.quantity(), Measure.Mean::new);
            case Measure.Extreme m ->
                form.quantity("of", Measures.scalars(session), m.quantity(), q -> new Measure.Extreme(q, m.greatest()));
            case Measure.WeightedMean m -> {
                form.quantity(
                        "of", Measures.scalars(session), m.quantity(), q -> new Measure.WeightedMean(q, m.vector()));
                form.quantity(
                        "by flow of",
                        Measures.vectors(session),
                        m.vector(),
                        q -> new Measure.WeightedMean(m.quantity(), q));
            }
            case Measure.Integral m ->
                form.quantity("of", Measures.scalars(session), m.quantity(), Measure.Integral::new);
            case Measure.Flow f -> form.flow(f);
            case Measure.Force f -> {
                form.loads(f.loads(), l -> new Measure.Force(l, f.direction()));
                form.point("Along", "along", f.direction(), p -> new Measure.Force(f.loads(), unit(p)));
            }
            case Measure.Moment m -> {
                form.loads(m.loads(), l -> new Measure.Moment(l, m.axis()));
                form.axis(m.axis(), a -> new Measure.Moment(m.loads(), a));
            }
        }
        return form.box;
    }

    private void become(Kind kind, Measure now) {
        Optional<? extends Measure> next =
                switch (kind) {
                    case AREA -> Optional.of(new Measure.Area());
                    case MEAN -> Measures.mean(session);
                    case GREATEST -> Measures.mean(session).map(m -> new Measure.Extreme(m.quantity(), true));
                    case LEAST -> Measures.mean(session).map(m -> new Measure.Extreme(m.quantity(), false));
                    case WEIGHTED ->
                        Measures.flow(session).flatMap(f -> Measures.mean(session)
                                .map(m -> new Measure.WeightedMean(m.quantity(), f.vector())));
                    case INTEGRAL -> Measures.mean(session).map(m -> new Measure.Integral(m.quantity()));
                    case FLOW -> Measures.flow(session);
                    case FORCE -> Measures.loads(session).map(l -> new Measure.Force(l, new Point(1, 0, 0)));
                    case MOMENT ->
                        Measures.loads(session)
                                .map(l -> new Measure.Moment(l, session.study().axis()));
                };
        if (next.isEmpty()) {
            session.say("No quantity fits a " + kind.word + "; "
                    + Measures.needs(
                            kind == Kind.FLOW || kind == Kind.WEIGHTED, kind == Kind.FORCE || kind == Kind.MOMENT));
        }
        changed.accept(next.isPresent() ? next.get() : now);
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

    private void flow(Measure.Flow f) {
        quantity(
                "of",
                Measures.vectors(session),
                f.vector(),
                q -> new Measure.Flow(q, f.factor(), f.factorUnit(), f.carried(), f.axis()));
        var factor = number(
                "factor", f.factor(), v -> new Measure.Flow(f.vector(), v, f.factorUnit(), f.carried(), f.axis()));
        var unit = Ui.text(
                id + "-factor-unit",
                f.factorUnit(),
                u -> attempt(() -> {
                    lane.unit.Unit.of(u);
                    return new Measure.Flow(f.vector(), f.factor(), u, f.carried(), f.axis());
                }));
        unit.setMaxWidth(80);
        line("Density", factor, unit);
        line(
                "Carries",
                Ui.segments(
                        List.of(Measure.Carried.values()),
                        f.carried(),
                        c -> c == Measure.Carried.NOTHING ? "itself" : "angular momentum",
                        c -> changed.accept(new Measure.Flow(f.vector(), f.factor(), f.factorUnit(), c, f.axis()))));
        if (f.carried() == Measure.Carried.ANGULAR_MOMENTUM) {
            axis(f.axis(), a -> new Measure.Flow(f.vector(), f.factor(), f.factorUnit(), f.carried(), a));
        }
    }

    private void loads(Measure.Loads l, java.util.function.Function<Measure.Loads, Measure> make) {
        load(
                "Pressure",
                "pressure",
                1,
                l.pressure(),
                p -> make.apply(new Measure.Loads(p, l.reference(), l.shear(), l.shearActsOn(), l.on())));
        if (!l.pressure().isBlank()) {
            line(
                    "less, Pa",
                    number(
                            "reference",
                            l.reference(),
                            v -> make.apply(new Measure.Loads(l.pressure(), v, l.shear(), l.shearActsOn(), l.on()))));
        }
        load(
                "Wall shear",
                "shear",
                3,
                l.shear(),
                s -> make.apply(new Measure.Loads(l.pressure(), l.reference(), s, l.shearActsOn(), l.on())));
        if (!l.shear().isBlank()) {
            String said = Measures.saidAtIntake(session, l.shear());
            line(
                    "stored as",
                    said.isBlank()
                            ? acting(
                                    l.shearActsOn(),
                                    o -> make.apply(
                                            new Measure.Loads(l.pressure(), l.reference(), l.shear(), o, l.on())))
                            : Ui.label(said, "second", "muted"));
        }
        line(
                "Reported",
                acting(
                        l.on(),
                        o -> make.apply(
                                new Measure.Loads(l.pressure(), l.reference(), l.shear(), l.shearActsOn(), o))));
    }

    private HBox acting(Measure.On now, java.util.function.Function<Measure.On, Measure> make) {
        return Ui.segments(
                List.of(Measure.On.values()), now, o -> "on " + o.word(), o -> changed.accept(make.apply(o)));
    }

    private void load(
            String caption,
            String field,
            int components,
            String now,
            java.util.function.Function<String, Measure> make) {
        var ids = new java.util.ArrayList<>(List.of(""));
        Measures.pascals(session, components).forEach(q -> ids.add(q.id()));
        if (!ids.contains(now)) {
            ids.add(now);
        }
        var choice = Ui.choice(
                id + "-" + field,
                ids,
                now,
                k -> k.isBlank()
                        ? "none"
                        : session.study().quantity(k).map(Quantity::name).orElse(k),
                k -> changed.accept(make.apply(k)));
        choice.setMaxWidth(200);
        line(caption, choice);
    }

    private void axis(Axis axis, java.util.function.Function<Axis, Measure> make) {
        point("Axis along", "axis", axis.direction(), p -> make.apply(new Axis(axis.origin(), unit(p))));
        point("through, m", "origin", axis.origin(), p -> make.apply(new Axis(p, axis.direction())));
    }

    private void point(String caption, String field, Point p, java.util.function.Function<Point, Measure> make) {
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

    private static Point unit(Point p) {
        double n = p.norm();
        if (!(n > 0)) {
            throw new LaneException("A direction cannot be 0, 0, 0; change another of its numbers first.");
        }
        return p.times(1 / n);
    }
}
