package lane.desk.checks;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.function.Consumer;
import javafx.scene.Node;
import lane.check.AgainstDatum;
import lane.check.Alignment;
import lane.check.Meeting;
import lane.check.Rule;
import lane.desk.Named;
import lane.desk.Ui;

/** How two curves meet: where, how they are resampled, what a point counts, and what is done to the abscissa. */
final class MeetingRows {
    private MeetingRows() {}

    static List<Node> of(AgainstDatum rule, Consumer<Rule> changed) {
        Meeting m = Objects.requireNonNullElse(rule.how(), Meeting.USUAL);
        Alignment a = m.align();
        Consumer<Meeting> set = n -> changed.accept(rule.meeting(n.equals(Meeting.USUAL) ? null : n));
        Consumer<Alignment> align = n -> set.accept(m.aligned(n));
        List<Node> out = new ArrayList<>();
        var at = Ui.choice(
                "meeting-at",
                List.of(Meeting.At.values()),
                m.at(),
                MeetingRows::word,
                w -> set.accept(new Meeting(
                        m.resampling(),
                        w,
                        w == Meeting.At.EVEN ? Math.max(2, m.samples() == 0 ? 101 : m.samples()) : 0,
                        m.weighting(),
                        a)));
        var row = Ui.row(8, Ui.left("Compared", 72, "second"), at);
        if (m.at() == Meeting.At.EVEN) {
            var n = Ui.number(
                    "meeting-samples",
                    m.samples(),
                    v -> set.accept(new Meeting(m.resampling(), m.at(), (int) Math.round(v), m.weighting(), a)));
            n.setPrefWidth(56);
            row.getChildren().add(n);
        }
        out.add(row);
        out.add(Ui.row(
                8,
                Ui.left("Between", 72, "second"),
                Ui.segments(
                        List.of(Meeting.Resampling.values()),
                        m.resampling(),
                        r -> r == Meeting.Resampling.LINEAR ? "straight" : "monotone cubic",
                        r -> set.accept(new Meeting(r, m.at(), m.samples(), m.weighting(), a)))));
        out.add(Ui.row(
                8,
                Ui.left("Weighing", 72, "second"),
                Ui.segments(
                        List.of(Meeting.Weighting.values()),
                        m.weighting(),
                        w -> w.name().toLowerCase(Locale.ROOT),
                        w -> set.accept(new Meeting(m.resampling(), m.at(), m.samples(), w, a)))));
        var shift = Ui.number("meeting-shift", a.shift(), v -> align.accept(with(a, v, a.factor())));
        var factor = Ui.number(
                "meeting-factor",
                Objects.requireNonNullElse(a.factor(), 1.0),
                v -> align.accept(with(a, a.shift(), v == 1 ? null : v)));
        shift.setPrefWidth(64);
        factor.setPrefWidth(64);
        out.add(Ui.row(
                8,
                Ui.left("Abscissa", 72, "second"),
                Ui.label("times", "muted"),
                factor,
                Ui.label("plus", "muted"),
                shift));
        var reverse = Named.check("reversed");
        reverse.setSelected(a.reverse());
        reverse.setOnAction(e -> align.accept(
                new Alignment(a.shift(), a.factor(), reverse.isSelected(), a.normalise(), a.fit(), a.reason())));
        var normalise = Named.check("0 to 1");
        normalise.setSelected(a.normalise());
        normalise.setOnAction(e -> align.accept(
                new Alignment(a.shift(), a.factor(), a.reverse(), normalise.isSelected(), a.fit(), a.reason())));
        var fit = Named.check("best shift");
        fit.setId("meeting-fit");
        fit.setSelected(a.fit());
        fit.setOnAction(e -> align.accept(
                new Alignment(a.shift(), a.factor(), a.reverse(), a.normalise(), fit.isSelected(), a.reason())));
        out.add(Ui.row(8, Ui.left("", 72), reverse, normalise, fit));
        if (!a.none() || !a.reason().isBlank()) {
            var reason = Ui.text(
                    "meeting-reason",
                    a.reason(),
                    t -> align.accept(new Alignment(a.shift(), a.factor(), a.reverse(), a.normalise(), a.fit(), t)));
            reason.setPromptText("why, for whoever reads it");
            reason.setPrefWidth(200);
            out.add(Ui.row(8, Ui.left("Reason", 72, "second"), reason));
        }
        return out;
    }

    private static Alignment with(Alignment a, double shift, @org.jspecify.annotations.Nullable Double factor) {
        return new Alignment(shift, factor, a.reverse(), a.normalise(), a.fit(), a.reason());
    }

    private static String word(Meeting.At at) {
        return switch (at) {
            case DATUM -> "at the datum's points";
            case CURVE -> "at the curve's points";
            case EVEN -> "at even points";
        };
    }
}
