package lane.desk.readings;

import java.util.List;
import java.util.Optional;
import javafx.scene.layout.VBox;
import lane.desk.Session;
import lane.desk.Ui;
import lane.reading.Ask;
import lane.reading.FieldDifferenceOf;
import lane.reading.Reading;
import lane.study.Source;
import lane.study.Study;
import org.kordamp.ikonli.feather.Feather;

/** Norms of the difference of a field from that of another run. */
public final class FieldDifferenceForm implements AskForm {
    @Override
    public String word() {
        return "field-difference";
    }

    @Override
    public Class<FieldDifferenceOf> type() {
        return FieldDifferenceOf.class;
    }

    @Override
    public String group() {
        return "Comparisons";
    }

    @Override
    public Feather icon() {
        return Feather.LAYERS;
    }

    @Override
    public String name(Study study, Ask ask) {
        var f = (FieldDifferenceOf) ask;
        return "Difference of " + AskForm.quantity(study, f.quantity()) + " from "
                + study.source(f.datum()).map(Source::name).orElse(f.datum());
    }

    @Override
    public List<Maker> makers() {
        return List.of(new Maker(
                "Difference of a field from another run",
                s -> {
                    String lacks = NewReading.lacksNumber(s);
                    return !lacks.isBlank()
                            ? lacks
                            : other(s).isEmpty() ? "a field differs from that of another run; there is none yet" : "";
                },
                s -> other(s).ifPresent(d -> s.numbers().stream().findFirst().ifPresent(q -> {
                    var ask = new FieldDifferenceOf(q.id(), d);
                    NewReading.add(s, AskForm.ALL.of(ask).name(s.study(), ask), "", ask);
                }))));
    }

    private static List<String> runs(Session session) {
        return session.study().sources().stream()
                .filter(Source.Simulation.class::isInstance)
                .map(Source::id)
                .toList();
    }

    /** The first run, so that finer ones after it have an answer. */
    private static Optional<String> other(Session session) {
        List<String> all = runs(session);
        return all.size() < 2 ? Optional.empty() : Optional.of(all.getFirst());
    }

    @Override
    public void settings(Session session, Reading reading, VBox box) {
        var f = (FieldDifferenceOf) reading.ask();
        box.getChildren()
                .addAll(
                        Rows.of(
                                "Field",
                                Ui.choice(
                                        "difference-quantity",
                                        session.numbers(),
                                        session.study().quantity(f.quantity()).orElse(null),
                                        q -> q == null ? "?" : q.name(),
                                        q -> Rows.change(
                                                session,
                                                reading.in(""),
                                                () -> new FieldDifferenceOf(q.id(), f.datum())))),
                        Rows.of(
                                "from run",
                                Ui.choice(
                                        "difference-datum",
                                        runs(session),
                                        f.datum(),
                                        id -> session.study()
                                                .source(id)
                                                .map(Source::name)
                                                .orElse(id),
                                        id -> Rows.change(
                                                session, reading, () -> new FieldDifferenceOf(f.quantity(), id)))));
    }
}
