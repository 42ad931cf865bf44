package lane.desk.checks;

import java.awt.image.BufferedImage;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javafx.application.Platform;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.image.Image;
import javafx.scene.image.ImageView;
import javafx.scene.layout.VBox;
import lane.base.LaneException;
import lane.base.Work;
import lane.check.Check;
import lane.check.CheckResult;
import lane.desk.Images;
import lane.desk.Session;
import lane.desk.Ui;
import lane.evaluation.BoundQuantity;
import lane.evaluation.EvaluationContext;
import lane.field.Field;
import lane.field.Run;
import lane.formats.io.FaultLog;
import lane.picture.Export;
import lane.picture.field.SurfacePicture;
import lane.quantity.Component;
import lane.quantity.Quantity;
import lane.reading.Ask;
import lane.reading.FieldDifference;
import lane.reading.Reading;
import lane.study.Source;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/** Where two fields that a check compares differ: the difference on the surface of the datum's run; drawn behind the window. */
final class CheckMap {
    private static final int WIDE = 396;
    private static final int TALL = 250;
    /** From the front, the right and above. */
    private static final SurfacePicture.View VIEW = new SurfacePicture.View(Math.toRadians(30), Math.toRadians(25));

    private CheckMap() {}

    /** Empty for what compares no fields, or where a run is missing. */
    static Optional<Node> of(Session session, Check check, @Nullable CheckResult result) {
        Reading reading = session.study().reading(check.reading()).orElse(null);
        Ask.Apart apart = reading == null ? null : reading.ask().apart().orElse(null);
        if (apart == null || result == null) {
            return Optional.empty();
        }
        String lane = result.lanes().entrySet().stream()
                .filter(e -> e.getValue().verdict() != null)
                .map(Map.Entry::getKey)
                .findFirst()
                .orElse("");
        Run of = session.results().runs().get(lane);
        Run datum = session.results().runs().get(apart.datum());
        Quantity quantity = session.study().quantity(apart.quantity()).orElse(null);
        return of == null || datum == null || quantity == null
                ? Optional.empty()
                : Optional.of(drawn(session, lane, of, apart.datum(), datum, quantity));
    }

    private static Node drawn(Session session, String lane, Run of, String other, Run datum, Quantity quantity) {
        var view = new ImageView();
        view.setId("check-map");
        view.setFitWidth(WIDE);
        view.setFitHeight(TALL);
        String words = quantity.name() + " of " + name(session, lane) + " less that of " + name(session, other)
                + ", on the surface of " + name(session, other);
        Label told = Ui.label(words, "small", "muted");
        told.setWrapText(true);
        told.setMaxWidth(WIDE);
        var box = new VBox(4, view, told);
        box.setAccessibleText("Map of " + words);
        var lens = session.results().lens();
        var palette = session.palette();
        double sharp = Images.sharpness();
        Thread.ofVirtual().start(() -> {
            try {
                FieldDifference.Result made = FieldDifference.difference(of, datum, quantity, lens, Work.QUIET);
                Unit unit = BoundQuantity.of(datum, quantity, lens).unit().difference();
                Run run = shown(made.run(), unit);
                var difference = new Quantity(
                        "d", "Δ " + quantity.name(), "d", Component.ALL, unit.known() ? unit.symbol() : "");
                int w = (int) Math.ceil(WIDE * sharp);
                int h = (int) Math.ceil(TALL * sharp);
                BufferedImage drawn = SurfacePicture.of(
                                run,
                                difference,
                                EvaluationContext.of(
                                        List.of(difference),
                                        List.of(),
                                        session.study().axis()),
                                VIEW,
                                w,
                                h,
                                palette,
                                true)
                        .image();
                Image image = Images.of(Export.image(w, h, 1, g -> {
                    g.setPaint(palette.ground());
                    g.fillRect(0, 0, w, h);
                    g.drawImage(drawn, 0, 0, null);
                }));
                Platform.runLater(() -> view.setImage(image));
            } catch (LaneException e) {
                Platform.runLater(() -> told.setText("No map: " + e.getMessage()));
            } catch (RuntimeException | Error e) {
                String sentence = FaultLog.note("Drawing where fields differ", e);
                Platform.runLater(() -> told.setText(sentence));
            }
        });
        return box;
    }

    /** The difference in the unit that it is told in. */
    private static Run shown(Run run, Unit unit) {
        Field f = run.field(FieldDifference.DIFFERENCE).orElseThrow();
        var field = new Field("d", f.at(), f.components(), unit.known() ? unit.si() : f.unit(), f.values());
        return new Run(run.mesh(), List.of(field), run.parts(), List.of(), List.of());
    }

    private static String name(Session session, String id) {
        return session.study().source(id).map(Source::name).orElse(id);
    }
}
