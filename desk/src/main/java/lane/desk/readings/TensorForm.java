package lane.desk.readings;

import java.util.List;
import javafx.scene.layout.VBox;
import lane.desk.Session;
import lane.desk.Ui;
import lane.reading.Ask;
import lane.reading.Reading;
import lane.reading.TensorOf;
import lane.reading.TensorOf.Which;
import lane.study.Study;
import org.kordamp.ikonli.feather.Feather;

/** Means and integrals of tensors with their components, principal values and the equivalent one. */
public final class TensorForm implements AskForm {
    @Override
    public String word() {
        return "tensor";
    }

    @Override
    public Class<TensorOf> type() {
        return TensorOf.class;
    }

    @Override
    public String group() {
        return "Tallies";
    }

    @Override
    public Feather icon() {
        return Feather.GRID;
    }

    @Override
    public String name(Study study, Ask ask) {
        var t = (TensorOf) ask;
        return "Mean " + AskForm.quantity(study, t.quantity()) + ", " + AskForm.places(study, t.stations());
    }

    @Override
    public List<Maker> makers() {
        return List.of(new Maker(
                "Mean of a tensor", NewReading::lacksTensor, NewReading::meanTensor, NewReading::holdsNumbers));
    }

    @Override
    public String sign(Reading reading) {
        return "components of row and column, each positive along its axes";
    }

    @Override
    public void settings(Session session, Reading reading, VBox box) {
        var t = (TensorOf) reading.ask();
        box.getChildren()
                .addAll(
                        Rows.of(
                                "Parts",
                                PartsChoice.of(
                                        session,
                                        "tensor-parts",
                                        t.stations(),
                                        1,
                                        ids -> change(session, reading, of(t, ids, t.quantity(), t.integral())))),
                        Rows.of(
                                "Tensor",
                                Ui.choice(
                                        "tensor-quantity",
                                        MeasureChoices.tensors(session),
                                        session.study().quantity(t.quantity()).orElse(null),
                                        q -> q == null ? "?" : q.name(),
                                        q -> change(
                                                session, reading.in(""), of(t, t.stations(), q.id(), t.integral())))),
                        Rows.of(
                                "Taken",
                                Ui.segments(
                                        List.of(false, true),
                                        t.integral(),
                                        all -> all ? "integral" : "mean",
                                        all -> change(
                                                session, reading.in(""), of(t, t.stations(), t.quantity(), all)))),
                        Rows.of(
                                "Judged by",
                                Ui.choice(
                                        "tensor-number",
                                        List.of(Which.values()),
                                        t.number(),
                                        Which::word,
                                        w -> change(
                                                session,
                                                reading,
                                                new TensorOf(
                                                        t.stations(),
                                                        t.quantity(),
                                                        t.integral(),
                                                        w,
                                                        t.frame(),
                                                        null)))));
        Rows.frame(
                        session,
                        "tensor-frame",
                        t.frame(),
                        f -> change(
                                session,
                                reading,
                                new TensorOf(t.stations(), t.quantity(), t.integral(), t.number(), f, null)))
                .ifPresent(box.getChildren()::add);
    }

    private static TensorOf of(TensorOf t, List<String> stations, String quantity, boolean integral) {
        return new TensorOf(stations, quantity, integral, t.number(), t.frame(), null);
    }

    private static void change(Session session, Reading reading, TensorOf next) {
        Rows.change(session, reading, () -> next);
    }
}
