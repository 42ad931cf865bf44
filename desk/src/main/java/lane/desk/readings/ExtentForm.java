package lane.desk.readings;

import java.util.ArrayList;
import java.util.List;
import javafx.scene.layout.VBox;
import lane.desk.Session;
import lane.desk.Ui;
import lane.evaluation.StoredValues.At;
import lane.quantity.Quantity;
import lane.reading.Ask;
import lane.reading.ExtentOf;
import lane.reading.ExtentOf.Which;
import lane.reading.Reading;
import lane.station.Region;
import lane.study.Study;
import org.kordamp.ikonli.feather.Feather;

/** Where a condition holds: how many, how much, and the box around it. */
public final class ExtentForm implements AskForm {
    @Override
    public String word() {
        return "extent";
    }

    @Override
    public Class<ExtentOf> type() {
        return ExtentOf.class;
    }

    @Override
    public String group() {
        return "Tallies";
    }

    @Override
    public Feather icon() {
        return Feather.MAXIMIZE;
    }

    @Override
    public String name(Study study, Ask ask) {
        var e = (ExtentOf) ask;
        return e.condition().isBlank()
                ? "Extent of " + AskForm.places(study, e.stations())
                : "Where " + AskForm.quantity(study, e.condition());
    }

    @Override
    public List<Maker> makers() {
        return List.of(new Maker(
                "Where a condition holds", NewReading::lacksCells, NewReading::extent, Region.class::isInstance));
    }

    @Override
    public void settings(Session session, Reading reading, VBox box) {
        var e = (ExtentOf) reading.ask();
        List<String> conditions = new ArrayList<>(List.of(""));
        MeasureChoices.conditions(session).forEach(q -> conditions.add(q.id()));
        if (!conditions.contains(e.condition())) {
            conditions.add(e.condition());
        }
        List<Which> numbers = List.of(Which.values()).stream()
                .filter(w -> w != Which.SIZE || e.at() == At.CELLS)
                .toList();
        box.getChildren()
                .addAll(
                        Rows.of(
                                "In",
                                PartsChoice.of(
                                        session,
                                        "extent-parts",
                                        e.stations(),
                                        1,
                                        ids -> Rows.change(
                                                session,
                                                reading,
                                                () -> new ExtentOf(ids, e.condition(), e.at(), e.number())))),
                        Rows.of(
                                "where",
                                Ui.choice(
                                        "extent-condition",
                                        conditions,
                                        e.condition(),
                                        k -> k.isBlank()
                                                ? "everywhere"
                                                : session.study()
                                                        .quantity(k)
                                                        .map(Quantity::name)
                                                        .orElse(k),
                                        k -> Rows.change(
                                                session,
                                                reading,
                                                () -> new ExtentOf(e.stations(), k, e.at(), e.number())))),
                        Rows.of(
                                "counted",
                                Ui.segments(
                                        List.of(At.values()),
                                        e.at(),
                                        a -> a == At.CELLS ? "cells" : "nodes",
                                        a -> Rows.change(
                                                session,
                                                reading.in(""),
                                                () -> new ExtentOf(
                                                        e.stations(),
                                                        e.condition(),
                                                        a,
                                                        e.number() == Which.SIZE ? Which.COUNT : e.number())))),
                        Rows.of(
                                "Judged by",
                                Ui.choice(
                                        "extent-number",
                                        numbers,
                                        e.number(),
                                        Which::word,
                                        w -> Rows.change(
                                                session,
                                                reading.in(""),
                                                () -> new ExtentOf(e.stations(), e.condition(), e.at(), w)))));
        if (conditions.size() == 1) {
            box.getChildren()
                    .add(Ui.label(
                            "A condition is a quantity such as T > 300 \"K\"; define one at Quantities.",
                            "small",
                            "muted"));
        }
    }
}
