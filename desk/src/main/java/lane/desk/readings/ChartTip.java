package lane.desk.readings;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import javafx.scene.Node;
import javafx.scene.layout.VBox;
import lane.desk.Marks;
import lane.desk.Session;
import lane.desk.Ui;
import lane.picture.Ticks;
import lane.picture.chart.AxisMap;
import lane.picture.chart.ChartLayout;
import lane.picture.chart.ProfileChart;
import lane.picture.chart.ReadingChart;
import lane.unit.Unit;

/** What all lanes are under the cursor of a chart; of many those that are nearest to it. */
final class ChartTip {
    private static final int MOST = 12;

    private final Session session;
    private final VBox box = new VBox(3);

    private record Told(ProfileChart.Curve curve, double value, double away) {}

    ChartTip(Session session) {
        this.session = session;
        box.getStyleClass().add("tooltip-card");
        box.setManaged(false);
        box.setMouseTransparent(true);
        hide();
    }

    Node node() {
        return box;
    }

    void hide() {
        box.setVisible(false);
    }

    /** The unit of an abscissa as it stands behind a number; nothing for what is counted. */
    static String unit(ChartLayout layout) {
        Unit unit = layout.across().unit();
        return unit.equals(Unit.ONE) ? "" : unit.symbol();
    }

    void show(ReadingChart of, ChartLayout l, double x, double y, double width) {
        AxisMap up = l.plots().getFirst().up();
        box.getChildren()
                .setAll(Ui.row(
                        14,
                        Ui.label(
                                "at " + Ticks.number(l.abscissa(x), Math.abs(l.right() - l.left()) / 4000) + " "
                                        + unit(l),
                                "section"),
                        Ui.spring(),
                        Ui.label(up.unit().label(), "small", "muted")));
        double si = l.across().si(l.place(x));
        List<Told> all = new ArrayList<>();
        for (ProfileChart.Curve c : of.named()) {
            double v = Nearest.value(c, si);
            all.add(new Told(c, v, Math.abs(l.plots().getFirst().pixel(v) - y)));
        }
        int hidden = Math.max(0, all.size() - MOST);
        if (hidden > 0) {
            all.sort(Comparator.comparingDouble(t -> Double.isNaN(t.away) ? Double.MAX_VALUE : t.away));
            all = all.subList(0, MOST);
        }
        for (Told t : all) {
            box.getChildren()
                    .add(Ui.row(
                            8,
                            Marks.marker(
                                    t.curve.style(), Marks.fx(session.palette().sheet())),
                            Ui.label(t.curve.name(), "second"),
                            Ui.spring(),
                            Ui.label(Ticks.number(up.unit().fromSi(t.value), Double.NaN), "second")));
        }
        if (hidden > 0) {
            box.getChildren().add(Ui.label(hidden + " more further away", "small", "muted"));
        }
        box.setVisible(true);
        box.autosize();
        box.relocate(
                Math.max(6, x + 14 + box.getWidth() > width - 6 ? x - 14 - box.getWidth() : x + 14),
                l.curve().getMinY() + 8);
    }
}
