package lane.desk.intake;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import lane.desk.Session;
import lane.desk.Tip;
import lane.desk.Ui;
import lane.field.Run;
import lane.mesh.CellQuality;
import lane.mesh.Finding;
import lane.picture.Ticks;
import lane.study.FamilyHealth;
import lane.study.Source;

/** What looks wrong in a run, and in its family. */
final class RunHealthRows extends RunSection {
    RunHealthRows(Session session, Source.Simulation source, Run run, VBox sheet) {
        super(session, source, run, sheet);
    }

    @Override
    void show() {
        own();
        family();
    }

    private void own() {
        add(SourceSheet.title(
                "Health",
                health == null
                        ? "being looked over"
                        : RunSheet.findings(run, health) == 0
                                ? "nothing to report"
                                : Ui.count(RunSheet.findings(run, health), "finding")));
        run.remarks().forEach(r -> add(note(r, "ochre", "second")));
        if (health == null) {
            return;
        }
        health.findings().forEach(f -> add(finding(f)));
        if (run.mesh().dimension() >= 2 && health.quality() != null) {
            add(quality(health.quality()));
        }
    }

    private Node quality(CellQuality q) {
        int most = 1;
        for (int n : q.skewness()) {
            most = Math.max(most, n);
        }
        var bars = new HBox(2);
        bars.setAlignment(Pos.BOTTOM_LEFT);
        bars.setMinHeight(26);
        bars.setMaxHeight(26);
        for (int i = 0; i < q.skewness().length; i++) {
            int n = q.skewness()[i];
            var bar = new Region();
            // A single bad cell among a million must still be seen.
            double h = n == 0 ? 1 : Math.max(3, 26 * Math.log1p(n) / Math.log1p(most));
            bar.setMinSize(16, h);
            bar.setMaxSize(16, h);
            bar.setStyle("-fx-background-color: " + (n == 0 ? "-hair" : i >= 9 ? "-ochre" : "-teal") + ";");
            Tip.on(
                    bar,
                    String.format(
                            Locale.ROOT,
                            "skewness %.1f to %.1f: %s cells",
                            i / 10.0,
                            (i + 1) / 10.0,
                            SourceSheet.count(n)));
            bars.getChildren().add(bar);
        }
        bars.setAccessibleText("Histogram of skewness, worst " + Finding.number(q.worstSkewness(), 2));
        Label caption = Ui.label("Skewness of cells, 0 to 1", "small", "muted");
        caption.setMinWidth(Region.USE_PREF_SIZE);
        bars.setMinWidth(Region.USE_PREF_SIZE);
        var row = Ui.row(
                12,
                caption,
                bars,
                note(
                        "worst " + Ticks.brief(q.worstSkewness()) + "; faces off flat by at most "
                                + Ticks.brief(q.worstWarp() < 1e-6 ? 0 : q.worstWarp())
                                + " of their size; edges at most 1 : " + Ticks.brief(q.worstAspect()),
                        "small",
                        "muted"));
        row.setStyle("-fx-padding: 6 0 0 0;");
        return row;
    }

    private Node finding(Finding f) {
        String tone =
                switch (f.severity()) {
                    case ERROR -> "brick";
                    case WARNING -> "ochre";
                    case NOTE -> "muted";
                };
        String where = f.worst() == null
                ? ""
                : String.format(
                        Locale.ROOT,
                        "at %s, %s, %s m",
                        Ticks.brief(f.worst().x()),
                        Ticks.brief(f.worst().y()),
                        Ticks.brief(f.worst().z()));
        Label text = note(f.text(), "second");
        text.setMinWidth(200);
        text.setMaxWidth(Double.MAX_VALUE);
        HBox.setHgrow(text, javafx.scene.layout.Priority.ALWAYS);
        HBox row = SourceSheet.line(
                false,
                Ui.left(f.severity().word(), 58, "second", tone),
                Ui.cell(
                        f.counted() ? SourceSheet.count((int) Math.min(Integer.MAX_VALUE, f.count())) : "",
                        58,
                        "second"),
                Ui.left("", 12),
                text,
                Ui.left("", 8),
                Ui.left(where, 174, "small", f.worst() == null ? "muted" : "link"));
        if (f.worst() != null) {
            // Click shows the place in the picture.
            String name = f.told().split(":")[0];
            row.setOnMouseClicked(e -> session.showPlace(new Session.Mark(name, f.worst(), source.id())));
            row.setAccessibleText(name + ", click shows the place in the picture");
        }
        return row;
    }

    private void family() {
        Map<String, Run> family = new LinkedHashMap<>();
        for (Source s : session.study().sources()) {
            Run r = session.results().runs().get(s.id());
            if (r != null && s instanceof Source.Simulation m && m.family().equals(source.family())) {
                family.put(m.name(), r);
            }
        }
        if (family.size() < 2) {
            return;
        }
        List<Finding> found = FamilyHealth.of(family, session.study().units());
        long odd = found.stream()
                .filter(f -> f.severity() != Finding.Severity.NOTE)
                .count();
        add(SourceSheet.title(
                "Family \"" + source.family() + "\"",
                family.size() + " runs, "
                        + (odd == 0 ? "alike but for their meshes" : Ui.count((int) odd, "difference"))));
        for (Finding f : found) {
            boolean fine = f.severity() == Finding.Severity.NOTE;
            add(note(f.text(), "second", fine ? "muted" : "ochre"));
        }
    }
}
