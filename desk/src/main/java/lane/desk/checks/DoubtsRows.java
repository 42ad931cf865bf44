package lane.desk.checks;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import javafx.scene.Node;
import javafx.scene.control.TextField;
import lane.base.LaneException;
import lane.check.Check;
import lane.check.Doubts;
import lane.desk.Named;
import lane.desk.Session;
import lane.desk.Tip;
import lane.desk.Ui;
import lane.study.Source;
import org.jspecify.annotations.Nullable;

/** What a check takes into account of how well its numbers are known. */
final class DoubtsRows {
    private DoubtsRows() {}

    static List<Node> of(Session session, Check check, Consumer<Doubts> changed) {
        Doubts d = check.doubts();
        List<Node> out = new ArrayList<>();
        var family = Named.check("numerical, from the family's meshes");
        family.setId("doubt-family");
        family.setSelected(d.family() == null || d.family());
        family.setOnAction(e -> changed.accept(d.counting(family.isSelected())));
        Tip.on(family, "From three meshes of other sizes on; from two where the order of the scheme is stated");
        out.add(family);
        var order = optional("doubt-order", d.order(), v -> changed.accept(d.ofOrder(v)));
        var k = optional("doubt-k", d.k(), v -> changed.accept(d.covering(v)));
        k.setPromptText("95 %");
        order.setPromptText("observed");
        out.add(Ui.row(8, Ui.left("Order", 72, "second"), order, Ui.label("k", "muted"), k));
        out.add(sizes(session, d, changed));
        for (int i = 0; i < d.inputs().size(); i++) {
            out.addAll(input(session, d, i, changed));
        }
        var add = Ui.button(
                "+ Input",
                () -> {
                    var all = new ArrayList<>(d.inputs());
                    all.add(new Doubts.Input("input " + (all.size() + 1), 0, 1.0, "", null));
                    changed.accept(d.with(all));
                },
                "small-button");
        add.setId("doubt-add");
        Tip.on(add, "Something that runs were given: how well it is known, and how the reading answers to it");
        out.add(add);
        return out;
    }

    /** A number that may be left out. */
    private static TextField optional(String id, @Nullable Double now, Consumer<@Nullable Double> typed) {
        var field = Ui.text(id, now == null ? "" : Ui.shortest(now), text -> {
            if (text.isBlank()) {
                typed.accept(null);
                return;
            }
            try {
                typed.accept(Double.parseDouble(text.strip()));
            } catch (NumberFormatException e) {
                throw new LaneException("\"" + text + "\" is no number; leave it out or give one.", e);
            }
        });
        field.setPrefWidth(72);
        return field;
    }

    /** Sizes of cells or time steps, where they are not those of the meshes. */
    private static Node sizes(Session session, Doubts d, Consumer<Doubts> changed) {
        var field = Ui.text(
                "doubt-sizes",
                d.sizes().isEmpty()
                        ? ""
                        : String.join(
                                ", ",
                                d.sizes().entrySet().stream()
                                        .map(e ->
                                                session.study()
                                                                .source(e.getKey())
                                                                .map(Source::name)
                                                                .orElse(e.getKey()) + " " + Ui.shortest(e.getValue()))
                                        .toList()),
                text -> changed.accept(
                        new Doubts(d.family(), d.order(), d.safety(), read(session, text), d.inputs(), d.k())));
        field.setPromptText("of the meshes");
        field.setPrefWidth(196);
        Tip.on(field, "Sizes of cells or time steps by lane, as in: fine 0.1, medium 0.2, coarse 0.4");
        return Ui.row(8, Ui.left("Sizes", 72, "second"), field);
    }

    private static Map<String, Double> read(Session session, String text) {
        Map<String, Double> out = new LinkedHashMap<>();
        for (String part : text.strip().isEmpty() ? new String[0] : text.split("[,;]")) {
            String one = part.strip();
            int at = one.lastIndexOf(' ');
            Source lane = at < 0
                    ? null
                    : session.study().sources().stream()
                            .filter(s -> s.name().equals(one.substring(0, at).strip())
                                    || s.id().equals(one.substring(0, at).strip()))
                            .findFirst()
                            .orElse(null);
            try {
                if (lane == null) {
                    throw new LaneException(
                            "\"" + one + "\" is no size; write lanes with their sizes, as in: fine 0.1, coarse 0.2.");
                }
                out.put(lane.id(), Double.parseDouble(one.substring(at + 1)));
            } catch (NumberFormatException e) {
                throw new LaneException("\"" + one + "\" ends in no number; write lanes with their sizes.", e);
            }
        }
        return out;
    }

    private static List<Node> input(Session session, Doubts d, int i, Consumer<Doubts> changed) {
        Doubts.Input in = d.inputs().get(i);
        Consumer<Doubts.Input> set = next -> {
            var all = new ArrayList<>(d.inputs());
            all.set(i, next);
            changed.accept(d.with(all));
        };
        var name = Ui.text(
                "input-name-" + i,
                in.name(),
                t -> set.accept(new Doubts.Input(t, in.standard(), in.sensitivity(), in.lane(), in.change())));
        name.setPrefWidth(110);
        var standard = Ui.number(
                "input-standard-" + i,
                in.standard(),
                v -> set.accept(new Doubts.Input(in.name(), v, in.sensitivity(), in.lane(), in.change())));
        standard.setPrefWidth(64);
        var gone = Ui.iconButton(org.kordamp.ikonli.feather.Feather.X, "Leave this input out", () -> {
            var all = new ArrayList<>(d.inputs());
            all.remove(i);
            changed.accept(d.with(all));
        });
        List<String> lanes = new ArrayList<>(List.of(""));
        session.study().sources().stream()
                .filter(Source.Simulation.class::isInstance)
                .forEach(s -> lanes.add(s.id()));
        boolean given = in.sensitivity() != null;
        var from = Ui.choice(
                "input-from-" + i,
                lanes,
                in.lane(),
                l -> l.isBlank()
                        ? "sensitivity"
                        : session.study().source(l).map(Source::name).orElse(l),
                l -> set.accept(
                        l.isBlank()
                                ? new Doubts.Input(in.name(), in.standard(), 1.0, "", null)
                                : new Doubts.Input(
                                        in.name(), in.standard(), null, l, in.change() == null ? 1.0 : in.change())));
        from.setPrefWidth(110);
        Double sensitivity = in.sensitivity();
        Double change = in.change();
        var number = Ui.number(
                "input-number-" + i,
                sensitivity != null ? sensitivity : change == null ? 1 : change,
                v -> set.accept(
                        given
                                ? new Doubts.Input(in.name(), in.standard(), v, "", null)
                                : new Doubts.Input(in.name(), in.standard(), null, in.lane(), v)));
        number.setPrefWidth(64);
        Tip.on(
                number,
                given
                        ? "How much the reading changes for 1 of the input"
                        : "By how much the input was changed in that run");
        return List.of(
                Ui.row(6, name, Ui.label("u", "muted"), standard, gone),
                Ui.row(6, Ui.left("", 8), from, Ui.label(given ? "" : "changed by", "muted", "small"), number));
    }
}
