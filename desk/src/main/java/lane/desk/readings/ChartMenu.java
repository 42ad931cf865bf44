package lane.desk.readings;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.function.UnaryOperator;
import javafx.scene.Node;
import javafx.scene.control.ContextMenu;
import javafx.scene.control.CustomMenuItem;
import javafx.scene.control.MenuItem;
import javafx.scene.control.SeparatorMenuItem;
import javafx.scene.control.TextField;
import lane.desk.Named;
import lane.desk.Session;
import lane.desk.Ui;
import lane.mesh.Point;
import lane.picture.chart.ChartLayout;
import lane.picture.chart.ProfileChart;
import lane.picture.chart.ReadingChart;
import lane.reading.Profile;
import lane.study.ChartLook;
import org.jspecify.annotations.Nullable;

/** What can be done at a place of a chart. */
final class ChartMenu {
    private final Session session;
    private final ContextMenu menu = new ContextMenu();

    /** A sample of a curve. */
    private record Sample(ProfileChart.Curve curve, String lane, int at, double away) {}

    ChartMenu(Session session) {
        this.session = session;
        menu.setId("chart-menu");
    }

    void at(
            Node chart,
            double screenX,
            double screenY,
            ReadingChart drawn,
            ChartLayout layout,
            double x,
            double y,
            Runnable all) {
        List<MenuItem> items = new ArrayList<>();
        Sample sample = nearest(drawn, layout, x, y);
        if (sample != null) {
            Profile p = sample.curve.profile();
            boolean placed = p.places().length == 3 * p.size();
            var show = item(
                    placed
                            ? "Show this place of " + sample.curve.name() + " in the picture"
                            : "These samples have no place in space to be shown",
                    () -> session.showPlace(new Session.Mark(
                            drawn.reading().name(),
                            new Point(
                                    p.places()[3 * sample.at],
                                    p.places()[3 * sample.at + 1],
                                    p.places()[3 * sample.at + 2]),
                            sample.lane)));
            show.setDisable(!placed);
            items.add(show);
        }
        if (drawn.reading().ask() instanceof lane.reading.HistoryOf) {
            double si = layout.across().si(layout.place(x));
            items.add(item("Look at this time everywhere", () -> ChartTime.choose(session, drawn.reading(), si)));
        }
        items.add(item("Show all of it", all));
        items.add(new SeparatorMenuItem());
        items.addAll(notes(drawn, layout, x, y));
        menu.getItems().setAll(items);
        menu.show(chart, screenX, screenY);
    }

    private List<MenuItem> notes(ReadingChart drawn, ChartLayout layout, double x, double y) {
        List<MenuItem> items = new ArrayList<>();
        String id = drawn.reading().id();
        ChartLayout.Plot plot = layout.plots().getFirst();
        double atX = layout.across().si(layout.place(x));
        double atY = plot.up().si(plot.place(y));
        if (Double.isFinite(atX) && Double.isFinite(atY)) {
            var words = new TextField();
            words.setId("chart-note");
            words.setPromptText("note at this place");
            words.setOnAction(e -> {
                if (!words.getText().isBlank()) {
                    menu.hide();
                    change(id, c -> {
                        List<ChartLook.Note> next = new ArrayList<>(c.notes());
                        next.add(new ChartLook.Note(atX, atY, words.getText().strip()));
                        return c.withNotes(next);
                    });
                }
            });
            items.add(new CustomMenuItem(Ui.row(6, Ui.label("Note", "second"), words), false));
        }
        for (ChartLook.Note note : drawn.look().notes()) {
            items.add(item(
                    "Take away the note \u201c" + lane.base.Plain.line(note.text()) + "\u201d",
                    () -> change(id, c -> {
                        List<ChartLook.Note> next = new ArrayList<>(c.notes());
                        next.remove(note);
                        return c.withNotes(next);
                    })));
        }
        return items;
    }

    private void change(String reading, UnaryOperator<ChartLook> edit) {
        session.edit("Chart", s -> s.with(edit.apply(s.chart(reading))));
    }

    private static @Nullable Sample nearest(ReadingChart drawn, ChartLayout layout, double x, double y) {
        Sample best = null;
        double si = layout.across().si(layout.place(x));
        ChartLayout.Plot plot = layout.plots().getFirst();
        for (int i = 0; i < drawn.curves().size(); i++) {
            Profile p = drawn.curves().get(i).profile();
            int at = Nearest.sample(drawn.curves().get(i), si);
            if (at >= 0 && Double.isFinite(p.value()[at])) {
                double away = Math.abs(plot.pixel(p.value()[at]) - y);
                if (best == null || away < Objects.requireNonNull(best).away) {
                    best = new Sample(drawn.curves().get(i), drawn.lanes().get(i), at, away);
                }
            }
        }
        return best;
    }

    private static MenuItem item(String text, Runnable action) {
        var item = Named.item(text);
        item.setOnAction(e -> action.run());
        return item;
    }
}
