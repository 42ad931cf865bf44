package lane.desk.stations;

import java.util.Objects;
import javafx.scene.layout.VBox;
import lane.base.Figures;
import lane.desk.Lengths;
import lane.desk.Session;
import lane.desk.Ui;
import lane.evaluation.EvaluationContext;
import lane.mesh.Point;
import lane.picture.Ticks;
import lane.picture.field.DrawnFrame;
import lane.quantity.Quantity;
import lane.station.Shell;
import org.jspecify.annotations.Nullable;

/** What lies under the pointer: value, face, cell, place, and the value of every lane there. */
final class PlaceTip extends VBox {
    private final Session session;

    /** Where something is, in space and in words. */
    record Place(Point inSpace, String words) {
        static Place of(Point p, Lengths lengths) {
            return new Place(p, lengths.place(p));
        }

        /** @param p arc length from the seam and length along the axis */
        static Place onShell(Shell shell, Point p, Lengths lengths) {
            Place inSpace = of(shell.inSpace(p.x(), p.y()), lengths);
            double angle = shell.seam() + Math.toDegrees(p.x() / shell.radius());
            String words = "angle " + new Figures(2, 0).text(angle) + "°  along " + lengths.hundredth(p.y()) + " "
                    + lengths.symbol();
            return new Place(inSpace.inSpace, words + "\n" + inSpace.words);
        }
    }

    PlaceTip(Session session) {
        super(3);
        this.session = session;
        getStyleClass().add("tooltip-card");
        setVisible(false);
        setMouseTransparent(true);
        setManaged(false);
    }

    /**
     * @param scene that the hit is in
     * @param place where it is
     * @param quantity shown, null for another number
     * @param at where the pointer is
     * @param wide and {@code high}: of what it must stay within
     */
    void show(
            DrawnFrame.Hit hit,
            FieldScene scene,
            @Nullable Place place,
            @Nullable Quantity quantity,
            String name,
            EvaluationContext lens,
            double[] at,
            double wide,
            double high) {
        if (hit == null || scene == null || hit.surface() >= scene.values().size()) {
            setVisible(false);
            return;
        }
        var values = scene.values().get(hit.surface());
        var part = scene.parts().get(hit.surface());
        // The picture under the pointer may be of a moment ago, when other surfaces stood in the scene.
        if (hit.face() >= part.surface().cellCount()) {
            setVisible(false);
            return;
        }
        String value = values == null
                ? "no value here"
                : Ticks.number(values.unit().fromSi(values.at(part, hit.face(), hit.place())), Double.NaN) + " "
                        + values.unit().label();
        getChildren()
                .setAll(
                        Ui.row(12, Ui.label(name, "section"), Ui.label(value)),
                        Ui.label(
                                (part.cut() ? "" : "part ") + hit.name() + ", face " + hit.face() + ", cell "
                                        + part.owner()[hit.face()],
                                "small",
                                "muted"),
                        Ui.label(Objects.requireNonNull(place).words, "small", "muted"));
        if (quantity != null) {
            for (LanesAt.One one : LanesAt.of(session, place.inSpace, quantity, lens)) {
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
