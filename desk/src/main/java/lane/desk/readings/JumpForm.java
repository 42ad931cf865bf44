package lane.desk.readings;

import java.util.List;
import javafx.scene.layout.VBox;
import lane.desk.Chosen;
import lane.desk.Session;
import lane.desk.Ui;
import lane.quantity.Quantity;
import lane.reading.Ask;
import lane.reading.JumpOf;
import lane.reading.JumpOf.Relative;
import lane.reading.JumpOf.Which;
import lane.reading.Reading;
import lane.station.Region;
import lane.study.Study;
import org.kordamp.ikonli.feather.Feather;

/** Jumps between neighbouring cells: how great, how many, and where. */
public final class JumpForm implements AskForm {
    @Override
    public String word() {
        return "jump";
    }

    @Override
    public Class<JumpOf> type() {
        return JumpOf.class;
    }

    @Override
    public String group() {
        return "Tallies";
    }

    @Override
    public Feather icon() {
        return Feather.ALIGN_CENTER;
    }

    @Override
    public String name(Study study, Ask ask) {
        return "Jumps of " + AskForm.quantity(study, ((JumpOf) ask).quantity());
    }

    @Override
    public List<Maker> makers() {
        return List.of(new Maker(
                "Jumps between neighbouring cells",
                NewReading::lacksNumber,
                NewReading::jump,
                Region.class::isInstance));
    }

    @Override
    public void settings(Session session, Reading reading, VBox box) {
        var j = (JumpOf) reading.ask();
        box.getChildren()
                .addAll(
                        Rows.of(
                                "Jumps of",
                                Ui.choice(
                                        "jump-quantity",
                                        session.numbers(),
                                        session.study().quantity(j.quantity()).orElse(null),
                                        q -> q == null ? "?" : q.name(),
                                        q -> Rows.change(
                                                session,
                                                reading.in(""),
                                                () -> new JumpOf(
                                                        j.stations(),
                                                        q.id(),
                                                        j.relative(),
                                                        0,
                                                        "",
                                                        j.number(),
                                                        j.across())))),
                        Rows.of(
                                "in",
                                PartsChoice.of(
                                        session,
                                        "jump-parts",
                                        j.stations(),
                                        1,
                                        ids -> Rows.change(
                                                session,
                                                reading,
                                                () -> new JumpOf(
                                                        ids,
                                                        j.quantity(),
                                                        j.relative(),
                                                        j.threshold(),
                                                        j.thresholdUnit(),
                                                        j.number(),
                                                        j.across())))),
                        Rows.of(
                                "taken",
                                Ui.choice(
                                        "jump-relative",
                                        List.of(Relative.values()),
                                        j.relative(),
                                        Relative::word,
                                        r -> Rows.change(
                                                session,
                                                reading.in(""),
                                                () -> new JumpOf(
                                                        j.stations(),
                                                        j.quantity(),
                                                        r,
                                                        0,
                                                        "",
                                                        j.number(),
                                                        j.across())))),
                        Rows.of(
                                "counted",
                                Ui.label("above", "muted"),
                                Rows.number(
                                        "jump-threshold",
                                        j.threshold(),
                                        v -> Rows.change(
                                                session,
                                                reading,
                                                () -> new JumpOf(
                                                        j.stations(),
                                                        j.quantity(),
                                                        j.relative(),
                                                        v,
                                                        j.thresholdUnit(),
                                                        j.number(),
                                                        j.across()))),
                                Rows.unit(
                                        j.relative() == Relative.ABSOLUTE ? j.thresholdUnit() : null,
                                        "jump-unit",
                                        u -> Rows.change(session, reading, () -> {
                                            lane.unit.Unit.of(u);
                                            return new JumpOf(
                                                    j.stations(),
                                                    j.quantity(),
                                                    j.relative(),
                                                    j.threshold(),
                                                    u,
                                                    j.number(),
                                                    j.across());
                                        }))),
                        Rows.of(
                                "across",
                                Ui.choice(
                                        "jump-across",
                                        List.of(JumpOf.Across.values()),
                                        j.across(),
                                        JumpOf.Across::word,
                                        a -> Rows.change(
                                                session,
                                                reading,
                                                () -> new JumpOf(
                                                        j.stations(),
                                                        j.quantity(),
                                                        j.relative(),
                                                        j.threshold(),
                                                        j.thresholdUnit(),
                                                        j.number(),
                                                        a)))),
                        Rows.of(
                                "Judged by",
                                Ui.choice(
                                        "jump-number",
                                        List.of(Which.values()),
                                        j.number(),
                                        Which::word,
                                        w -> Rows.change(
                                                session,
                                                reading.in(""),
                                                () -> new JumpOf(
                                                        j.stations(),
                                                        j.quantity(),
                                                        j.relative(),
                                                        j.threshold(),
                                                        j.thresholdUnit(),
                                                        w,
                                                        j.across())))));
        String name = session.study()
                .quantity(j.quantity())
                .map(q -> lane.formula.Printer.name(q.name()))
                .orElse(j.quantity());
        var where =
                Ui.button("Colour the picture by them", () -> colour(session, "jump(" + name + ")"), "small-button");
        where.setId("jump-colour");
        box.getChildren().add(where);
    }

    /** The greatest jump of each cell becomes a quantity, if it is none yet, and the picture shows it. */
    private static void colour(Session session, String formula) {
        var known = session.study().quantities().stream()
                .filter(q -> q.formula().equals(formula))
                .findFirst();
        String id = known.map(Quantity::id)
                .orElseGet(() -> Study.freshId(
                        "jump",
                        session.study().quantities().stream().map(Quantity::id).toList()));
        if (known.isEmpty()) {
            session.edit(
                    "Add quantity",
                    s -> s.withQuantities(l -> {
                        l.add(new Quantity(
                                id, formula.replaceAll("[\"()]", " ").strip().replaceAll(" +", " "), formula, "", ""));
                        return l;
                    }));
        }
        session.select(Chosen.COLOUR, id);
        session.go(2);
    }
}
