package lane.desk.stations;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Supplier;
import javafx.scene.Node;
import javafx.scene.control.MenuButton;
import lane.base.LaneException;
import lane.desk.Named;
import lane.desk.Session;
import lane.desk.Ui;
import lane.field.Part;
import lane.field.PartPlaces;
import lane.mesh.Axis;
import lane.mesh.Point;
import lane.station.Frame;
import lane.station.Points;
import lane.station.Station;
import lane.study.Source;
import org.jspecify.annotations.Nullable;

/** The selected frame: where it stands, from numbers, a part or three points. */
final class FrameForm extends FormRows<Frame> {
    private final Frame it;

    private FrameForm(Session session, Frame it, Axis parent) {
        super(session, parent, false);
        this.it = it;
    }

    static Node of(Session session, Frame it) {
        Axis parent;
        String trouble = "";
        try {
            parent = session.study().placed(it.parent());
        } catch (LaneException e) {
            parent = Axis.Z;
            trouble = e.getMessage();
        }
        var form = new FrameForm(session, it, parent);
        form.fill();
        if (!trouble.isEmpty()) {
            var why = Ui.label(trouble, "small", "brick");
            why.setWrapText(true);
            form.box.getChildren().add(why);
        }
        return form.box;
    }

    @Override
    void put(String what, Supplier<Frame> make) {
        session.edit(what, s -> s.with(make.get()));
    }

    private void fill() {
        List<String> parents = new ArrayList<>(List.of(""));
        session.study().frames().stream()
                .map(Frame::id)
                .filter(id -> !id.equals(it.id()))
                .forEach(parents::add);
        row(
                "Stands in",
                Ui.choice(
                        "frame-parent",
                        parents,
                        it.parent(),
                        id -> session.study().frame(id).map(Frame::name).orElse("space"),
                        id -> put(
                                "Frame stands in",
                                () -> new Frame(
                                        it.id(),
                                        it.name(),
                                        id,
                                        it.origin(),
                                        it.stands(),
                                        it.cylindrical(),
                                        it.note()))));
        row(
                "Places by",
                Ui.segments(
                        List.of(false, true),
                        it.cylindrical(),
                        c -> c ? "r, angle, z" : "x, y, z",
                        c -> put(
                                "Coordinates",
                                () -> new Frame(
                                        it.id(), it.name(), it.parent(), it.origin(), it.stands(), c, it.note()))));
        point("Origin", "frame-", it.origin(), it::at);
        boolean turned = it.stands() instanceof Frame.Attitude.Turned;
        row(
                "Directions are",
                Ui.segments(
                        List.of(true, false),
                        turned,
                        t -> t ? "turned" : "told",
                        t -> put(
                                "Directions",
                                () -> it.standing(
                                        t
                                                ? new Frame.Attitude.Turned(List.of(), false)
                                                : new Frame.Attitude.Directed(
                                                        it.axis().direction(),
                                                        it.axis().zero())))));
        switch (it.stands()) {
            case Frame.Attitude.Turned t -> turned(t);
            case Frame.Attitude.Directed d -> {
                direction(
                        "z along",
                        "frame-along-",
                        d.along(),
                        p -> it.standing(new Frame.Attitude.Directed(p, other(p, d))));
                direction(
                        "x (angle zero) towards",
                        "frame-zero-",
                        d.zero(),
                        p -> it.standing(new Frame.Attitude.Directed(d.along(), p)));
            }
        }
        var words = Ui.label(it.words(), "small", "muted");
        words.setWrapText(true);
        box.getChildren().add(words);
        row("Take from", fromPart(), fromPoints());
        if (!it.note().isBlank()) {
            var note = Ui.label(it.note(), "small", "muted");
            note.setWrapText(true);
            box.getChildren().add(note);
        }
    }

    /** The old x where it is still none of the new z. */
    private static @Nullable Point other(Point along, Frame.Attitude.Directed d) {
        return d.zero().cross(along).norm() > 1e-9 * along.norm() ? d.zero() : null;
    }

    private void turned(Frame.Attitude.Turned t) {
        for (int i = 0; i < t.steps().size(); i++) {
            int at = i;
            Frame.Rotation r = t.steps().get(i);
            row(
                    (i == 0 ? "first" : "then") + " about",
                    Ui.segments(
                            List.of("x", "y", "z"),
                            r.about(),
                            a -> a,
                            a -> put("Turn frame", () -> it.standing(with(t, at, new Frame.Rotation(a, r.degrees()))))),
                    number(
                            "frame-turn-" + i,
                            r.degrees(),
                            "deg",
                            v -> put("Turn frame", () -> it.standing(with(t, at, new Frame.Rotation(r.about(), v))))),
                    unit("°"),
                    Ui.iconButton(
                            org.kordamp.ikonli.feather.Feather.X,
                            "Remove this turn",
                            () -> put("Remove turn", () -> it.standing(with(t, at, null)))));
        }
        row(
                "",
                Ui.button(
                        "+ Turn",
                        () -> put(
                                "Turn frame",
                                () -> it.standing(with(t, t.steps().size(), new Frame.Rotation("z", 0)))),
                        "small-button"),
                Ui.segments(
                        List.of(false, true),
                        t.own(),
                        o -> o ? "own axes" : "outer",
                        o -> put("Turn frame", () -> it.standing(new Frame.Attitude.Turned(t.steps(), o)))));
    }

    private static Frame.Attitude with(Frame.Attitude.Turned t, int at, Frame.@Nullable Rotation r) {
        List<Frame.Rotation> next = new ArrayList<>(t.steps());
        if (at == next.size()) {
            next.add(r);
        } else if (r == null) {
            next.remove(at);
        } else {
            next.set(at, r);
        }
        return new Frame.Attitude.Turned(next, t.own());
    }

    /** Origin at the part's centre, z along its mean normal where it has one. */
    private MenuButton fromPart() {
        var menu = Named.menuButton("a part");
        menu.setId("frame-from-part");
        menu.getStyleClass().add("small-menu");
        session.results().runs().forEach((lane, run) -> {
            var of = Named.menu(session.study().source(lane).map(Source::name).orElse(lane));
            for (Part part : run.parts()) {
                var item = Named.item(part.name());
                item.setOnAction(e -> put("Frame from " + part.name(), () -> from(lane, part)));
                of.getItems().add(item);
            }
            menu.getItems().add(of);
        });
        return menu;
    }

    private Frame from(String lane, Part part) {
        Point normal = PartPlaces.normal(part);
        Frame.Attitude stands =
                normal == null ? it.stands() : new Frame.Attitude.Directed(frame.inDirection(normal), null);
        String note = "origin at the centre of part \"" + part.name() + "\" of " + lane
                + (normal == null ? "" : ", z along its mean normal");
        return new Frame(
                it.id(), it.name(), it.parent(), frame.in(PartPlaces.centre(part)), stands, it.cylindrical(), note);
    }

    /** Three point stations, or the three last pins: origin, towards x, in the x-y plane. */
    private MenuButton fromPoints() {
        var menu = Named.menuButton("three points");
        menu.setId("frame-from-points");
        menu.getStyleClass().add("small-menu");
        List<Station> pins = session.study().stations().stream()
                .filter(s -> s.shape() instanceof Points p && p.points().size() == 1)
                .map(session::placed)
                .toList();
        if (pins.size() < 3) {
            var item = Named.item("Pin three places in the picture first (two clicks each)");
            item.setDisable(true);
            menu.getItems().add(item);
        } else {
            List<Station> last = pins.subList(pins.size() - 3, pins.size());
            var item = Named.item("Origin at " + last.get(0).name() + ", x towards "
                    + last.get(1).name() + ", " + last.get(2).name() + " in the plane of x and y");
            item.setOnAction(e -> put("Frame from three points", () -> {
                Point[] p = last.stream()
                        .map(s -> frame.in(((Points) s.shape()).points().getFirst()))
                        .toArray(Point[]::new);
                String note = "through " + last.get(0).name() + ", "
                        + last.get(1).name() + " and " + last.get(2).name();
                return new Frame(
                        it.id(), it.name(), it.parent(), p[0], Frame.through(p[0], p[1], p[2]), it.cylindrical(), note);
            }));
            menu.getItems().add(item);
        }
        return menu;
    }
}
