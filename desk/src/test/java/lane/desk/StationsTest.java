package lane.desk;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import javafx.geometry.Bounds;
import javafx.scene.control.CheckMenuItem;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import lane.desk.stations.NewStation;
import lane.desk.stations.ShapeForm;
import lane.reading.Outcome;
import lane.reading.Profile;
import lane.reading.Tally;
import lane.station.CutCurve;
import lane.station.Line;
import lane.station.Section;
import lane.station.Shape;
import lane.station.Station;
import lane.station.Sweep;
import org.junit.jupiter.api.Test;

/** Stations of every kind in the window: added, placed by numbers, read, drawn. */
class StationsTest extends InWindow {
    private Station add(ShapeForm kind) throws Exception {
        onFx(() -> {
            session.go(2);
            kind.maker().accept(session);
            return null;
        });
        settled();
        return session.study().station(session.selected(Chosen.STATION)).orElseThrow();
    }

    private void button(String word) throws Exception {
        onFx(() -> {
            robot.lookup(n -> n instanceof javafx.scene.control.Button b
                            && b.getText().equals(word)
                            && b.isVisible())
                    .queryAs(javafx.scene.control.Button.class)
                    .fire();
            return null;
        });
        settled();
    }

    @Test
    void everyKindIsAddedWithNumbersThatLieInTheRunsAndIsRead() throws Exception {
        for (ShapeForm kind : ShapeForm.ALL.all()) {
            if (kind.maker() == null || kind.word().equals("part")) {
                continue;
            }
            int readings = session.study().readings().size();
            Station made = add(kind);
            assertThat(session.message()).as(kind.word()).isEmpty();
            button(
                    made.shape() instanceof Shape.Sampled || made.shape() instanceof CutCurve
                            ? "Read a profile"
                            : made.shape() instanceof Sweep ? "Read along it" : "Read a mean");
            assertThat(session.study().readings()).as(kind.word()).hasSize(readings + 1);
            Outcome o = session.results()
                    .outcome(session.study().readings().getLast().id(), "fine");
            // A point in the middle of the jacket lies in the rotor, where there is no oil.
            if (kind.word().equals("points")) {
                assertThat(o).isInstanceOf(Outcome.Absent.class);
            } else {
                assertThat(o).as(kind.word() + ": " + o).isInstanceOfAny(Profile.class, Tally.class);
            }
        }
        // The second run of all stations draws every one of them without trouble.
        for (Station s : List.copyOf(session.study().stations())) {
            onFx(() -> {
                session.select(Chosen.STATION, s.id());
                session.go(2);
                return null;
            });
            assertThat(this.<javafx.scene.Node>node("station-name").isVisible()).isTrue();
        }
    }

    @Test
    void aSectionIsMovedByNumbersByFormulaAndByItsGrip() throws Exception {
        onFx(() -> {
            session.select(Chosen.STATION, "mid");
            session.go(2);
            return null;
        });
        settled();
        enter("end-through-z", "(30 + 60)/2");
        settled();
        Station moved = session.study().station("mid").orElseThrow();
        assertThat(((Section) moved.shape()).point().z()).isCloseTo(0.045, within(1e-12));
        enter("end-through-z", "6o");
        assertThat(session.study().station("mid")).contains(moved);
        for (String wrong : List.of("0 0 60", "0 0")) {
            MenuButton menu = node("three-points");
            onFx(() -> {
                menu.show();
                return null;
            });
            String[] at = {"0 0 60", "30 0 60", wrong};
            for (int i = 0; i < 3; i++) {
                javafx.scene.control.TextField field = node("three-points-" + (i + 1));
                String text = at[i];
                onFx(() -> {
                    field.setText(text);
                    return null;
                });
            }
            javafx.scene.control.Button make = node("three-points-make");
            onFx(() -> {
                make.fire();
                return null;
            });
            settled();
            assertThat(session.message()).contains(wrong.equals("0 0") ? "no point" : "one line");
            assertThat(session.study().station("mid")).contains(moved);
        }
        Tally flow = (Tally) session.results().outcome("mid-flow", "fine");
        assertThat(flow.value()).isCloseTo(0.1502, within(2e-4));
        // The same oil passes every section.
        assertThat(((Tally) session.results().outcome("mass-flow", "fine")).value())
                .isCloseTo(flow.value(), within(1e-6));
    }

    @Test
    void copiesAreMadeAsAnArrayInOneEdit() throws Exception {
        onFx(() -> {
            session.select(Chosen.STATION, "mid");
            session.go(2);
            return null;
        });
        settled();
        int before = session.study().stations().size();
        MenuButton menu = node("array");
        onFx(() -> {
            menu.show();
            return null;
        });
        javafx.scene.control.Button make = node("array-make");
        onFx(() -> {
            make.fire();
            return null;
        });
        settled();
        assertThat(session.study().stations()).hasSize(before + 5);
        Section last = (Section) session.study().stations().stream()
                .filter(s -> s.name().equals("Mid section 6"))
                .findFirst()
                .orElseThrow()
                .shape();
        assertThat(last.point().z()).isCloseTo(0.11, within(1e-12));
        onFx(() -> {
            session.undo();
            return null;
        });
        assertThat(session.study().stations()).hasSize(before);
    }

    private javafx.scene.control.MenuItem item(String menu, String... words) throws Exception {
        MenuButton button = node(menu);
        java.util.List<javafx.scene.control.MenuItem> items = button.getItems();
        javafx.scene.control.MenuItem found = null;
        for (String word : words) {
            found = items.stream()
                    .filter(x -> word.equals(x.getText()))
                    .findFirst()
                    .orElseThrow(() -> new AssertionError("no " + word));
            items = found instanceof javafx.scene.control.Menu m ? m.getItems() : java.util.List.of();
        }
        return found;
    }

    private void choose(javafx.scene.control.MenuItem item) throws Exception {
        onFx(() -> {
            if (item instanceof CheckMenuItem c) {
                c.setSelected(!c.isSelected());
            }
            item.fire();
            return null;
        });
        settled();
    }

    @Test
    void aStationStandsInAFrameThatIsMovedByNumbersWithUnits() throws Exception {
        onFx(() -> {
            session.go(2);
            NewStation.frame(session);
            return null;
        });
        settled();
        String id = session.study().frames().getLast().id();
        enter("end-frame-x", "1 \"in\"");
        settled();
        assertThat(session.study().frame(id).orElseThrow().origin().x()).isEqualTo(0.0254);
        onFx(() -> {
            session.edit("in frame", s -> s.inFrame("gap-mid", id));
            session.select(Chosen.STATION, "gap-mid");
            return null;
        });
        settled();
        Station gap = session.study().station("gap-mid").orElseThrow();
        var line = (Line) gap.shape();
        var placed = (Line) session.placed(gap).shape();
        assertThat(placed.a().x() - line.a().x()).isCloseTo(0.0254, org.assertj.core.api.Assertions.within(1e-12));
        enter("end-Az", "0");
        settled();
        assertThat(((Line) session.placed(session.study().station("gap-mid").orElseThrow())
                                .shape())
                        .a()
                        .z())
                .isZero();
        onFx(() -> {
            session.undo();
            return null;
        });
        settled();
        assertThat(session.message()).isEmpty();
    }

    @Test
    void picturesStandBesideOneAnotherShowDifferencesAndLieFlat() throws Exception {
        onFx(() -> {
            session.select(Chosen.STATION, "mid");
            session.go(2);
            return null;
        });
        settled();
        choose(item("picture-view", "Beside it", "coarse"));
        assertThat(this.<javafx.scene.Node>node("field-beside").isVisible()).isTrue();
        choose(item("picture-view", "Beside it", "the difference to coarse"));
        choose(item("picture-view", "Flat, with axes"));
        choose(item("picture-view", "Beside it", "nothing"));
        choose(item("picture-view", "Measure"));
        choose(item("picture-view", "Measure"));
        choose(item("picture-view", "Fit the station"));
        choose(item("picture-view", "Flat, with axes"));
        assertThat(session.message()).isEmpty();
        assertThat(robot.lookup("#field-beside").queryAll()).isEmpty();
    }

    @Test
    void aNumberIsCarriedIntoThePictureAndStandsThere() throws Exception {
        onFx(() -> {
            session.select(Chosen.STATION, "mid");
            session.go(4);
            return null;
        });
        settled();
        robot.moveTo(middle("item-rotor-torque")).press(MouseButton.PRIMARY);
        robot.moveBy(30, 0).moveTo(middle("stop-2"));
        await(() -> session.stop() == 2);
        javafx.scene.Node carried = node("carried");
        assertThat(carried.isVisible()).isTrue();
        settled();
        await(() -> colours() > 20);
        robot.moveTo(middle("field"));
        // Onto the ring of oil, left of the hole that the rotor fills.
        robot.moveTo(middle("field").add(-101, 43));
        look("carried");
        robot.release(MouseButton.PRIMARY);
        events();
        assertThat(session.study().notes()).singleElement().satisfies(n -> {
            assertThat(n.reading()).isEqualTo("rotor-torque");
            assertThat(n.at()).isNotNull();
            assertThat(Math.hypot(n.at().x(), n.at().y())).isBetween(0.029, 0.037);
            assertThat(n.at().z()).isCloseTo(0.06, within(1e-9));
        });
        assertThat(carried.isVisible()).isFalse();
        settled();
        look("carried-note");
        // A curve has no number to be carried, and what is let go elsewhere leaves nothing.
        onFx(() -> {
            session.go(4);
            return null;
        });
        events();
        robot.moveTo(middle("item-rotor-torque")).press(MouseButton.PRIMARY);
        robot.moveBy(30, 0).moveTo(middle("reading-name")).release(MouseButton.PRIMARY);
        events();
        robot.moveBy(5, 5);
        assertThat(session.carry().on()).isFalse();
        assertThat(session.study().notes()).hasSize(1);
    }

    private javafx.geometry.Point2D middle(String id) throws Exception {
        return onFx(() -> {
            var node = node(id);
            Bounds b = node.localToScreen(node.getBoundsInLocal());
            return new javafx.geometry.Point2D(b.getCenterX(), b.getCenterY());
        });
    }

    private int colours() throws Exception {
        return onFx(() -> {
            var field = node("field");
            var at = field.localToScene(field.getBoundsInLocal());
            var all = stage.getScene().snapshot(null);
            var seen = new java.util.HashSet<Integer>();
            for (double x = at.getMinX() + 2; x < at.getMaxX() - 2; x += 3) {
                for (double y = at.getMinY() + 2; y < at.getMaxY() - 2; y += 3) {
                    seen.add(all.getPixelReader().getArgb((int) x, (int) y));
                }
            }
            return seen.size();
        });
    }

    @Test
    void aShellLaidFlatTellsWhatIsInSpaceUnderThePointer() throws Exception {
        onFx(() -> {
            session.select(Chosen.STATION, "mid-gap");
            session.go(2);
            return null;
        });
        settled();
        choose(item("picture-view", "Flat, with axes"));
        Bounds b = onFx(() -> node("field").localToScreen(node("field").getBoundsInLocal()));
        robot.moveTo(b.getCenterX() - 20, b.getCenterY());
        robot.moveTo(b.getCenterX(), b.getCenterY());
        await(() -> robot.lookup(n ->
                        n instanceof Label l && l.isVisible() && l.getText().startsWith("angle "))
                .tryQuery()
                .isPresent());
        String words =
                onFx(() -> robot.lookup(n -> n instanceof Label l && l.getText().startsWith("angle "))
                        .queryAs(Label.class)
                        .getText());
        var number = java.util.regex.Pattern.compile("−?\\d+\\.\\d+").matcher(words);
        double[] v = number.results()
                .mapToDouble(r -> Double.parseDouble(r.group().replace('−', '-')))
                .toArray();
        // Angle and length along the axis, then the same place in space on the shell of 33 mm.
        assertThat(v[2]).isCloseTo(33 * Math.cos(Math.toRadians(v[0])), within(0.02));
        assertThat(v[3]).isCloseTo(33 * Math.sin(Math.toRadians(v[0])), within(0.02));
        assertThat(v[4]).isEqualTo(v[1]);
        look("shell-laid-flat");
        // It lies in every run, where its flattened coordinates would not.
        assertThat(robot.lookup(n -> n instanceof Label l && l.getText().equals("outside"))
                        .tryQuery())
                .isEmpty();
        choose(item("picture-view", "Flat, with axes"));
    }

    @Test
    void whatIsDrawnAtASectionComesAndGoes() throws Exception {
        onFx(() -> {
            session.select(Chosen.STATION, "mid");
            session.go(2);
            return null;
        });
        settled();
        for (int i = 0; i < 5; i++) {
            int at = i;
            for (int round = 0; round < 2; round++) {
                MenuButton draw = node("picture-draw");
                onFx(() -> {
                    CheckMenuItem item = (CheckMenuItem) draw.getItems().get(at);
                    item.setSelected(!item.isSelected());
                    item.fire();
                    return null;
                });
                settled();
                assertThat(session.message()).isEmpty();
            }
        }
        MenuButton colour = node("picture-colour");
        onFx(() -> {
            colour.getItems().get(1).fire();
            return null;
        });
        settled();
        assertThat(this.<MenuButton>node("picture-colour").getItems()).isNotEmpty();
        press(KeyCode.DIGIT2);
    }
}
