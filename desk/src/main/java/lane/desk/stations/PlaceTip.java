package lane.desk.stations;

import java.util.Locale;
import javafx.scene.layout.VBox;
import lane.desk.Session;
import lane.desk.Ui;
import lane.picture.Ticks;
import lane.picture.field.Frame;
import lane.quantity.Quantity;
import lane.reading.Lens;

/** What lies under the pointer: value, face, cell, place, and the value of every lane there. */
final class PlaceTip extends VBox {
    private final Session session;

    PlaceTip(Session session) {
        super(3);
        this.session = session;
        getStyleClass().add("tooltip-card");
        setVisible(false);
        setMouseTransparent(true);
        setManaged(false);
    }

    /**
     * @param scene that the hit is in; @param quantity shown, null for another number
     * @param at where the pointer is; @param wide and {@code high}: of what it must stay within
     */
    void show(
            Frame.Hit hit,
            FieldScene scene,
            Quantity quantity,
            String name,
            Lens lens,
            double[] at,
            double wide,
            double high) {
        if (hit == null || scene == null || hit.surface() >= scene.values().size()) {
            setVisible(false);
            return;
        }
        var values = scene.values().get(hit.surface());
        var part = scene.parts().get(hit.surface());
        String value = values == null
                ? "no value here"
                : Ticks.number(values.unit().fromSi(values.at(part, hit.face(), hit.place())), Double.NaN) + " "
                        + values.unit().label();
        String place = String.format(
                        Locale.ROOT,
                        "x %.2f  y %.2f  z %.2f mm",
                        1000 * hit.place().x(),
                        1000 * hit.place().y(),
                        1000 * hit.place().z())
                .replace('-', '−');
        getChildren()
                .setAll(
                        Ui.row(12, Ui.label(name, "section"), Ui.label(value)),
                        Ui.label(
                                (part.cut() ? "" : "part ") + hit.name() + ", face " + hit.face() + ", cell "
                                        + part.owner()[hit.face()],
                                "small",
                                "muted"),
                        Ui.label(place, "small", "muted"));
        if (quantity != null) {
            for (LanesAt.One one : LanesAt.of(session, hit.place(), quantity, lens)) {
                boolean outside = Double.isNaN(one.value());
                String text = outside
                        ? "outside"
                        : Ticks.number(one.unit().fromSi(one.value()), Double.NaN) + " "
                                + one.unit().label();
                getChildren()
                        .add(Ui.row(
                                12,
                                Ui.label(one.lane(), "small"),
                                Ui.spring(),
                                Ui.label(text, "small", outside ? "muted" : "second")));
            }
        }
        applyCss();
        autosize();
        relocate(Math.min(at[0] + 14, wide - getWidth() - 4), Math.min(at[1] + 14, high - getHeight() - 4));
        setVisible(true);
    }
}
