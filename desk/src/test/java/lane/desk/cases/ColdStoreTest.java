package lane.desk.cases;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import javafx.scene.control.CheckBox;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.ToggleButton;
import lane.desk.Chosen;
import lane.desk.Session;
import lane.desk.Windowed;
import lane.desk.intake.FileDrop;
import lane.field.Field;
import lane.field.PartBuilder;
import lane.field.Values;
import lane.formats.vtk.VtkXmlWriter;
import lane.formats.vtk.VtkXmlWriter.Options;
import lane.measure.Flow;
import lane.measure.Given;
import lane.mesh.Axis;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.reading.Balance;
import lane.reading.BalanceOf;
import lane.reading.Outcome;
import lane.reading.Profile;
import lane.reading.Reading;
import lane.reading.Several;
import lane.reading.Tally;
import lane.station.Abscissa;
import lane.station.Box;
import lane.station.Enclosing;
import lane.station.Line;
import lane.station.Region;
import lane.station.Sampling;
import lane.station.Station;
import lane.station.Within;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Readings of several numbers in the window, in the air of a cold store of 6 x 4 x 3 m: temperatures in degC, pressures in mbar. */
class ColdStoreTest extends Windowed {
    @TempDir
    Path folder;

    private void store(String name, double warmer) throws Exception {
        Mesh mesh = BoxMesh.of(CellShape.WEDGE, new int[] {6, 4, 3}, new double[] {6, 4, 3}, 0, 3);
        double[] air = new double[mesh.nodeCount()];
        double[] over = new double[air.length];
        double[] draught = new double[3 * air.length];
        for (int i = 0; i < air.length; i++) {
            double x = mesh.xyz()[3 * i];
            double z = mesh.xyz()[3 * i + 2];
            air[i] = -22 + warmer + x * x / 6 + z;
            over[i] = 0.3 - 0.02 * z + 0.01 * x;
            draught[3 * i] = 0.2 * x;
            draught[3 * i + 1] = 0.5 * z;
        }
        VtkXmlWriter.writeGrid(
                folder.resolve(name + ".vtu"),
                mesh,
                List.of(
                        new Field("air temperature", Field.At.NODE, 1, Unit.UNKNOWN, Values.of(air)),
                        new Field("draught", Field.At.NODE, 3, Unit.of("m/s"), Values.of(draught)),
                        new Field("overpressure", Field.At.NODE, 1, Unit.UNKNOWN, Values.of(over))),
                Options.DEFAULT);
        Path parts = Files.createDirectories(folder.resolve(name + "-parts"));
        VtkXmlWriter.writeSurface(
                parts.resolve("walls.vtp"), new PartBuilder(mesh).whole("walls").surface(), List.of(), Options.DEFAULT);
    }

    private void add(String item) throws Exception {
        robot.interact(() -> session.go(4));
        events();
        MenuButton menu = node("add-reading");
        MenuItem found = menu.getItems().stream()
                .filter(i -> i.getText() != null && i.getText().startsWith(item))
                .findFirst()
                .orElseThrow();
        robot.interact(found::fire);
        settled();
    }

    private void toggle(String word) throws Exception {
        ToggleButton found = robot.lookup(
                        n -> n instanceof ToggleButton t && t.getText().equals(word) && t.isVisible())
                .query();
        robot.interact(found::fire);
        settled();
    }

    private Outcome answer(String lane) {
        return session.results().outcome(session.selected(Chosen.READING), lane);
    }

    private double number(String lane, String what) {
        return ((Several) answer(lane)).of(what).orElseThrow().shown();
    }

    private void unit(String field, String unit) {
        robot.interact(() -> session.edit(
                "Unit",
                s -> s.withUnits(l -> {
                    l.removeIf(u -> u.field().equals(field));
                    l.add(new lane.quantity.FieldUnit(field, unit, true));
                    return l;
                })));
    }

    private void line(String name, double y, double to) {
        var shape = new Line(
                new lane.mesh.Point(0, y, 0), new lane.mesh.Point(to, y, 0), new Sampling.Even(7), Abscissa.ARC);
        robot.interact(() -> session.edit(
                "Line",
                s -> s.withStations(l -> {
                    l.add(new Station(name, name, shape));
                    return l;
                })));
    }

    @Test
    void loadsFitsPairsAndExtents() throws Exception {
        store("night", 0);
        store("day", 5);
        show(Session::fresh);
        robot.interact(() -> FileDrop.add(session, List.of(folder.resolve("night.vtu"), folder.resolve("day.vtu"))));
        await(() -> session.results().runs().size() == 2);
        unit("air temperature", "degC");
        unit("overpressure", "mbar");
        settled();

        add("Load");
        Reading load = session.study().reading(session.selected(Chosen.READING)).orElseThrow();
        assertThat(load.name()).isEqualTo("Load on walls");
        // Over a closed surface: 72 m3 times the gradient, 1 Pa/m along x and -2 Pa/m along z.
        assertThat(number("night", "along")).isCloseTo(72, within(1e-6));
        assertThat(number("night", "across")).isCloseTo(-144, within(1e-6));
        enter("load-across-z", "-1");
        settled();
        assertThat(number("night", "across")).isCloseTo(144, within(1e-6));
        CheckBox coefficients = node("load-coefficients");
        robot.interact(coefficients::fire);
        settled();
        enter("load-area", "120000 cm2");
        settled();
        choose("load-number", "coefficient along");
        assertThat(number("night", "coefficient along")).isCloseTo(72 / (0.6 * 12), within(1e-9));
        see("moment side");
        look("load");
        enter("load-along-x", "0");
        assertThat(session.message()).contains("cannot be 0, 0, 0");

        add("Force on a part");
        double force = answer("night").numbers().getFirst().value();
        assertThat(force).isCloseTo(72, within(1e-6));
        javafx.scene.control.Button flip = node("flip");
        robot.interact(flip::fire);
        settled();
        assertThat(answer("night").numbers().getFirst().value()).isEqualTo(-force);
        see("positive pushes the wall along -x");

        toggle("gradient");
        assertThat(((Outcome.Absent) answer("night")).reason()).contains("state that unit at Quantities");
        unit("draught", "m/s");
        settled();
        choose("tally-velocity", "draught");
        assertThat(((Outcome.Absent) answer("night")).reason()).contains("need a dynamic viscosity");
        enter("tally-mu", "18 mPa s");
        settled();
        // The stress is the same everywhere, and cancels over all walls.
        assertThat(answer("night").numbers().getFirst().value()).isCloseTo(-force, within(1e-6));
        look("viscous");
        javafx.scene.control.Button picture = node("in-picture");
        robot.interact(picture::fire);
        settled();
        assertThat(session.stop()).isEqualTo(2);
        assertThat(session.study().notes()).singleElement().satisfies(n -> assertThat(n.reading())
                .isEqualTo(session.selected(Chosen.READING)));
        look("arrow");

        robot.interact(() -> session.edit(
                "Tensor",
                q -> q.withQuantities(l -> {
                    l.add(new lane.quantity.Quantity("shearing", "shearing", "grad(draught)", "", ""));
                    return l;
                })));
        settled();
        add("Mean of a tensor");
        // The draught is (0.2 x, 0.5 z, 0).
        assertThat(number("night", "xx")).isCloseTo(0.2, within(1e-9));
        assertThat(number("night", "yz") + number("night", "zy")).isCloseTo(0.5, within(1e-9));
        assertThat(number("night", "trace")).isCloseTo(0.2, within(1e-9));
        look("tensor");

        line("wall side", 0, 6);
        line("half", 2, 3);
        settled();
        add("Polynomial");
        assertThat(number("night", "constant")).isCloseTo(-22.8, within(0.5));
        enter("fit-degree", "2");
        settled();
        // -22 + x^2/6 along the wall.
        assertThat(number("day", "constant")).isCloseTo(-17, within(1e-9));
        assertThat(number("day", "coefficient 2")).isCloseTo(1 / 6.0, within(1e-9));
        look("fit");
        choose("fit-show", "value less fit");
        assertThat(((Profile) answer("night")).value()[3]).isCloseTo(0, within(1e-9));
        look("fit-residuals");
        choose("fit-show", "coefficients");
        choose("fit-over", "nodes");
        choose("fit-against", "z");
        settled();
        assertThat(answer("night").numbers()).isNotEmpty();
        look("fit-nodes");

        add("Two stations");
        assertThat(((Profile) answer("night")).value()[6]).isCloseTo(6 - 1.5, within(1e-9));
        look("pair");
        choose("pair-as", "number of the means");
        look("pair-number");

        robot.interact(() -> session.edit(
                "Condition",
                s -> s.withQuantities(l -> {
                    l.add(new lane.quantity.Quantity("soft", "soft", "\"air temperature\" > -18 \"degC\"", "", ""));
                    return l;
                })));
        settled();
        add("Where a condition");
        assertThat(number("night", "least x")).isGreaterThan(2);
        assertThat(number("day", "count")).isEqualTo(6 * 4 * 3 * 2);
        look("extent");

        add("Jumps");
        choose("jump-quantity", "air temperature");
        choose("jump-number", "count");
        enter("jump-threshold", "0.99");
        settled();
        // From layer to layer of 1 m the air is 1 K warmer: 6 by 4 cubes of two wedges, between three layers.
        assertThat(number("night", "count")).isGreaterThanOrEqualTo(6 * 4 * 2 * 2);
        assertThat(number("night", "greatest")).isBetween(1.0 - 1e-9, 2.0);
        assertThat(number("day", "greatest")).isCloseTo(number("night", "greatest"), within(1e-9));
        look("jump");
        javafx.scene.control.Button colour = node("jump-colour");
        robot.interact(colour::fire);
        await(() -> session.stop() == 2);
        settled();
        javafx.scene.control.ComboBox<String> shown = node("picture-quantity");
        await(() -> "jump".equals(shown.getValue()));
        assertThat(session.study().quantity("jump").orElseThrow().formula()).isEqualTo("jump(\"air temperature\")");
        look("jump-picture");

        add("Area of a part");
        choose("tally-kind", "greatest value");
        choose("tally-quantity", "air temperature");
        double stored = ((Tally) answer("night")).value();
        choose("tally-values", "cells, each the same");
        assertThat(((Tally) answer("night")).value()).isLessThanOrEqualTo(stored);
        see("one value a cell, each counting the same");
        choose("tally-kind", "mean");
        see("by quadrature");
        choose("tally-values", "cells, by their size");
        see("one value a cell, by its size");
        // A name that nobody chose goes with what is asked.
        assertThat(session.study().readings().getLast().name())
                .isEqualTo("Mean of jump air temperature over cells by their size, walls");
        enter("reading-name", "Steps at the walls");
        settled();
        look("values");
        choose("tally-values", "quadrature");
        assertThat(session.study().readings().getLast().name()).isEqualTo("Steps at the walls");
        choose("tally-kind", "heat conducted");
        assertThat(((Outcome.Absent) answer("night")).reason()).contains("needs a conductivity");
        enter("tally-k", "25 W/(m K)");
        settled();
        // Nothing makes heat but the bend of x^2/6: 25 W/(m K) 1/3 K/m2 over 72 m3, within what gradients at a wall are
        // good for.
        assertThat(((Tally) answer("night")).value()).isCloseTo(-25 / 3.0 * 72, within(110.0));
        look("heat");
        choose("tally-kind", "typed value");
        enter("tally-given-unit", "kW");
        enter("tally-given", "1.2");
        enter("tally-given-source", "plate of the fan");
        settled();
        assertThat(((Tally) answer("day")).value()).isEqualTo(1200);
        assertThat(((Tally) answer("day")).note()).contains("typed by hand; source: plate of the fan");
        look("typed");

        // A box around the fan, which passes through cells.
        robot.interact(() -> session.edit(
                "Box",
                s -> s.withStations(l -> {
                    l.add(new Station(
                            "fan",
                            "fan",
                            new Region(new Within.InBox(
                                    new Box(new lane.mesh.Point(0.4, 0.7, 0.2), new lane.mesh.Point(2.9, 2.2, 1.7))))));
                    l.add(new Station("around-fan", "around fan", new Enclosing("fan")));
                    return l;
                })));
        settled();
        robot.interact(() -> {
            session.go(2);
            session.select(Chosen.STATION, "fan");
        });
        events();
        toggle("cells are cut");
        settled();
        look("box-cut");
        robot.interact(() -> session.select(Chosen.STATION, "around-fan"));
        settled();
        look("box-around");
        MenuButton here = node("read-here");
        assertThat(here.getItems())
                .extracting(MenuItem::getText)
                .anyMatch(t -> t.startsWith("Flow through"))
                .noneMatch(t -> t.startsWith("Profile"));
        robot.interact(here.getItems().stream()
                .filter(i -> i.getText().startsWith("Flow through"))
                .findFirst()
                .orElseThrow()::fire);
        settled();
        assertThat(session.stop()).isEqualTo(4);
        assertThat(session.study().readings().stream().toList().getLast().stations())
                .containsExactly("around-fan");
        assertThat(answer("night").numbers().getFirst().value()).isCloseTo(0.2 * 5.625, within(1e-9));
        robot.interact(() -> session.edit(
                "Balance",
                s -> s.withReadings(l -> {
                    l.add(new Reading(
                            "air",
                            "air",
                            "m3/h",
                            new BalanceOf(
                                    List.of(
                                            new BalanceOf.Term(
                                                    "draught out",
                                                    -1,
                                                    List.of("around-fan"),
                                                    new Flow("draught", 1, "1", Flow.Carried.NOTHING, Axis.Z)),
                                            new BalanceOf.Term(
                                                    "leak", 1, List.of(), new Given(4000, "m3/h", "smoke test"))),
                                    List.of(),
                                    "positive fills the box")));
                    return l;
                })));
        settled();
        robot.interact(() -> {
            session.go(4);
            session.select(Chosen.READING, "air");
        });
        events();
        // It spreads by 0.2 1/s over 2.5 x 1.5 x 1.5 m.
        assertThat(((Balance) answer("night")).terms().getFirst().value()).isCloseTo(-0.2 * 5.625, within(1e-9));
        choose("balance-conserved", "energy");
        see("heat conducted");
        assertThat(((Balance) answer("night")).missing()).isEqualTo("heat conducted");
        choose("balance-against", "leak");
        assertThat(((Balance) answer("night")).scale()).isCloseTo(4000 / 3600.0, within(1e-12));
        look("balance");
    }
}
