package lane.desk.readings;

import java.util.ArrayList;
import java.util.List;
import java.util.function.UnaryOperator;
import javafx.scene.Node;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import lane.base.LaneException;
import lane.desk.Chosen;
import lane.desk.Session;
import lane.desk.Tip;
import lane.desk.Ui;
import lane.measure.Area;
import lane.measure.Given;
import lane.measure.Measure;
import lane.reading.BalanceOf;
import lane.reading.BalanceOf.Term;
import lane.reading.Conserved;
import lane.reading.Reading;
import lane.station.OnPart;
import lane.station.Station;
import org.kordamp.ikonli.feather.Feather;

/** The terms of a balance: each with its sign, name, parts and measure; one is open at a time. */
final class TermsForm {
    private final Session session;

    TermsForm(Session session) {
        this.session = session;
    }

    Node of(Reading balance) {
        HBox head = Ui.row(
                8, Ui.label("Terms", "title"), Ui.spring(), Ui.button("+ Term", () -> add(balance), "small-button"));
        head.setStyle("-fx-padding: 12 0 0 0;");
        var box = new VBox(4, head);
        String open = session.selected(Chosen.TERM);
        for (int i = 0; i < terms(balance).size(); i++) {
            int at = i;
            Term t = terms(balance).get(i);
            boolean isOpen = open.equals(balance.id() + "/" + i);
            var words = new VBox(
                    Ui.left(t.name(), 200, "second"),
                    Ui.left(
                            t.measure() instanceof Given g
                                    ? "typed: " + g.source()
                                    : "over " + PartsChoice.words(session, t.stations()) + "; " + sign(t),
                            226,
                            "small",
                            "muted"));
            var arrow = Ui.iconButton(
                    isOpen ? Feather.CHEVRON_DOWN : Feather.CHEVRON_RIGHT,
                    isOpen ? "Close the term" : "Change the term",
                    () -> session.select(Chosen.TERM, isOpen ? "" : balance.id() + "/" + at));
            arrow.setId("term-" + i);
            HBox row = Ui.row(8, Ui.label(t.factor() > 0 ? "+" : "−", "section"), words, Ui.spring(), arrow);
            row.getStyleClass().add("table-row");
            row.setMinHeight(38);
            box.getChildren().add(row);
            if (isOpen) {
                box.getChildren().add(form(balance, at, t));
            }
        }
        box.getChildren().addAll(conserved(balance));
        box.getChildren().addAll(closing(balance), against(balance), positive(balance), unit(balance));
        return box;
    }

    /** Inside of the run nothing enters or leaves it: there the surface's own normal counts. */
    private String sign(Term t) {
        boolean boundary = t.stations().stream()
                .flatMap(id -> session.study().station(id).stream())
                .allMatch(s -> s.shape() instanceof OnPart);
        String words = t.measure().sign();
        return boundary
                ? words
                : words.replace("leaves the run", "passes along the surface's normal")
                        .replace("enters the run", "passes against the surface's normal");
    }

    private Node form(Reading balance, int at, Term t) {
        var name = Ui.text(
                "term-name", t.name(), n -> put(balance, at, new Term(n, t.factor(), t.stations(), t.measure())));
        var sign = Ui.segments(
                List.of(1, -1),
                t.factor(),
                f -> f > 0 ? "counts +" : "counts −",
                f -> put(balance, at, new Term(t.name(), f, t.stations(), t.measure())));
        var parts = PartsChoice.of(
                session,
                "term-parts",
                t.stations(),
                1,
                ids -> put(balance, at, new Term(t.name(), t.factor(), ids, t.measure())));
        var form = new VBox(
                6,
                Ui.row(6, Ui.left("Name", 78, "second"), name),
                Ui.row(6, Ui.left("Sign", 78, "second"), sign),
                Ui.row(6, Ui.left("Parts", 78, "second"), parts),
                MeasureForm.of(
                        session,
                        "term",
                        t.measure(),
                        m -> put(balance, at, new Term(t.name(), t.factor(), where(t, m), m))));
        if (t.measure().placeless()) {
            form.getChildren().remove(2);
        }
        if (terms(balance).size() > 1) {
            form.getChildren()
                    .add(Ui.button(
                            "Delete term",
                            () -> edit(balance, l -> {
                                l.remove(at);
                                return l;
                            }),
                            "small-button"));
        }
        form.getStyleClass().add("paper");
        form.setStyle("-fx-padding: 8 8 10 10;");
        return form;
    }

    /** What belongs to a lane as a whole is taken over nothing; all else begins with the first part. */
    private List<String> where(Term t, Measure measure) {
        return measure.placeless()
                ? List.of()
                : !t.stations().isEmpty()
                        ? t.stations()
                        : session.study().stations().stream()
                                .filter(x -> x.shape() instanceof OnPart)
                                .map(Station::id)
                                .limit(1)
                                .toList();
    }

    private void add(Reading balance) {
        String part = session.study().stations().stream()
                .filter(x -> x.shape() instanceof OnPart)
                .map(Station::id)
                .findFirst()
                .orElse(null);
        if (part == null) {
            session.say(
                    "A term is taken over a part, and the study has no part station yet; add one at Stations, then this term.");
            session.go(2);
            return;
        }
        Measure measure =
                terms(balance).isEmpty() ? new Area() : terms(balance).getLast().measure();
        edit(balance, l -> {
            l.add(new Term("Term " + (l.size() + 1), 1, measure.placeless() ? List.of() : List.of(part), measure));
            return l;
        });
        session.select(Chosen.TERM, balance.id() + "/" + terms(balance).size());
    }

    /** Whoever is compared with the term follows its name. */
    private void put(Reading balance, int at, Term term) {
        BalanceOf ask = ask(balance);
        List<Term> all = new ArrayList<>(ask.terms());
        String before = all.set(at, term).name();
        BalanceOf.Against against = ask.against().term().equals(before) && !before.isBlank()
                ? new BalanceOf.Against(term.name(), ask.against().value())
                : ask.against();
        NewReading.change(
                session, balance.asking(new BalanceOf(all, ask.closedBy(), ask.positive(), ask.conserved(), against)));
    }

    private void edit(Reading b, UnaryOperator<List<Term>> edit) {
        List<Term> terms = edit.apply(new ArrayList<>(terms(b)));
        NewReading.change(session, b.asking(ask(b).with(terms, ask(b).closedBy(), ask(b).positive())));
    }

    private Node closing(Reading b) {
        return Ui.row(
                6,
                Ui.left("Closed by", 78, "second"),
                PartsChoice.of(
                        session,
                        "balance-closed-by",
                        ask(b).closedBy(),
                        0,
                        ids -> NewReading.change(session, b.asking(ask(b).with(terms(b), ids, ask(b).positive())))));
    }

    /** What it is of, and the terms that one of that has. */
    private List<Node> conserved(Reading b) {
        List<Node> out = new ArrayList<>();
        BalanceOf ask = ask(b);
        var choice = Ui.choice(
                "balance-conserved",
                List.of(Conserved.values()),
                ask.conserved(),
                Conserved::word,
                c -> NewReading.change(
                        session,
                        b.asking(new BalanceOf(ask.terms(), ask.closedBy(), ask.positive(), c, ask.against()))));
        out.add(Ui.row(6, Ui.left("Balance of", 78, "second"), choice));
        for (Conserved.Need need : ask.conserved().needs(ask.terms())) {
            boolean missing = need.state() == Conserved.State.MISSING;
            String word =
                    switch (need.state()) {
                        case THERE -> "there";
                        case MISSING -> "missing";
                        case IF_ANY -> "if there is any";
                    };
            var state = Ui.left(word, 78, "small", missing ? "brick" : "muted");
            var what = Ui.left(need.what(), 200, "small");
            Tip.on(what, need.what() + ": " + need.how() + ".");
            out.add(Ui.row(6, state, what));
        }
        return out;
    }

    /** What the residual is compared with: the largest term, one of them, or a stated number. */
    private Node against(Reading b) {
        BalanceOf ask = ask(b);
        String stated = "a stated number";
        List<String> all = new ArrayList<>(List.of(""));
        ask.terms().forEach(t -> all.add(t.name()));
        all.add(stated);
        var now = ask.against();
        var choice = Ui.choice(
                "balance-against",
                all.stream().distinct().toList(),
                now.value() > 0 ? stated : now.term(),
                t -> t.isBlank() ? "the largest term" : t,
                t -> compared(b, t.equals(stated) ? new BalanceOf.Against("", 1) : new BalanceOf.Against(t, 0)));
        choice.setMaxWidth(150);
        return now.value() > 0
                ? Ui.row(
                        6,
                        Ui.left("Relative to", 78, "second"),
                        choice,
                        Rows.number("balance-scale", now.value(), v -> {
                            try {
                                compared(b, new BalanceOf.Against("", v));
                            } catch (LaneException e) {
                                session.say(e.getMessage());
                            }
                        }))
                : Ui.row(6, Ui.left("Relative to", 78, "second"), choice);
    }

    private void compared(Reading b, BalanceOf.Against with) {
        BalanceOf ask = ask(b);
        NewReading.change(
                session, b.asking(new BalanceOf(ask.terms(), ask.closedBy(), ask.positive(), ask.conserved(), with)));
    }

    private Node positive(Reading b) {
        var words = Ui.text(
                "balance-positive",
                ask(b).positive(),
                t -> NewReading.change(session, b.asking(ask(b).with(terms(b), ask(b).closedBy(), t))));
        words.setPrefWidth(220);
        return Ui.row(6, Ui.left("In words", 78, "second"), words);
    }

    private Node unit(Reading b) {
        var unit = Ui.text("balance-unit", b.unit(), t -> NewReading.change(session, b.in(t)));
        unit.setPromptText("follows");
        unit.setMaxWidth(90);
        return Ui.row(6, Ui.left("Unit", 78, "second"), unit);
    }

    private static BalanceOf ask(Reading reading) {
        return (BalanceOf) reading.ask();
    }

    private static List<Term> terms(Reading reading) {
        return ask(reading).terms();
    }
}
