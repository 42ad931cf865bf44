package lane.desk.cases;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import javafx.scene.control.Button;
import javafx.scene.control.MenuButton;
import lane.check.Verdict;
import lane.cli.Lane;
import lane.desk.Chosen;
import lane.desk.Session;
import lane.desk.Windowed;
import lane.desk.intake.FileDrop;
import lane.desk.ledger.LedgerView;
import lane.formats.table.PointsTable;
import lane.quantity.FieldUnit;
import lane.quantity.Quantity;
import lane.reading.AroundOf;
import lane.reading.FeatureOf;
import lane.reading.Profile;
import lane.reading.ProfileOf;
import lane.reading.Reading;
import lane.reading.Tally;
import lane.station.Points;
import lane.station.Region;
import lane.station.Station;
import lane.station.Within;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The first hour of other trades: in the window from files to the ledger, and again by a study written by hand. */
class OtherTradesTest extends Windowed {
    @TempDir
    Path folder;

    private void fire(String id) throws Exception {
        Button button = node(id);
        robot.interact(button::fire);
        settled();
    }

    private void open(String id) throws Exception {
        settled();
        boolean open = false;
        // An edit is shown a moment later, by a button made anew.
        for (int i = 0; i < 20 && !open; i++) {
            MenuButton menu = node(id);
            robot.interact(menu::show);
            events();
            Thread.sleep(120);
            open = menu.isShowing() && menu == node(id);
        }
        assertThat(open).as(id).isTrue();
    }

    private void write(String id, String text) {
        javafx.scene.control.TextField field = node(id);
        robot.interact(() -> field.setText(text));
    }

    private void begin(int runs, String... files) throws Exception {
        show(Session::fresh);
        robot.interact(() ->
                FileDrop.add(session, Arrays.stream(files).map(folder::resolve).toList()));
        await(() -> session.results().runs().size() == runs);
        settled();
    }

    private void inUnit(String source, String unit) throws Exception {
        robot.interact(() -> {
            session.select(Chosen.SOURCE, source);
            session.go(1);
        });
        events();
        choose("length", unit);
    }

    /** A profile over the field, along the line through the middle that is offered first. */
    private void profile(String quantity) throws Exception {
        robot.interact(() -> session.go(4));
        events();
        fire("step-profile-along-a-line");
        choose("reading-quantity", quantity);
    }

    private String source(int i) {
        return session.study().sources().get(i).id();
    }

    private Profile curve(int source) {
        return (Profile)
                session.results().outcome(session.study().readings().getFirst().id(), source(source));
    }

    private void saved(String name) throws Exception {
        Path study = folder.resolve(name + ".lane.json");
        robot.interact(() -> session.saveAs(study));
        settled();
        robot.interact(() -> {
            session.go(6);
            LedgerView.write(session);
        });
        await(() -> session.message().startsWith("Wrote"));
        look(name + "-ledger");
        assertThat(folder.resolve("ledger/ledger.csv")).exists();
        assertThat(Lane.run(
                        "evaluate",
                        study.toString(),
                        "--out",
                        folder.resolve("again").toString()))
                .isZero();
    }

    private JsonNode byHand(String study, int code) throws Exception {
        Path file = Files.writeString(folder.resolve("byhand.lane.json"), study);
        assertThat(Lane.run(
                        "evaluate",
                        file.toString(),
                        "--out",
                        folder.resolve("byhand").toString()))
                .isEqualTo(code);
        return new ObjectMapper()
                .readTree(folder.resolve("byhand/ledger.json").toFile())
                .path("numbers");
    }

    private static double number(JsonNode all, String item, String lane, String what) {
        for (JsonNode n : all) {
            if (n.path("item").asText().equals(item)
                    && n.path("lane").asText().equals(lane)
                    && n.path("what").asText().startsWith(what)) {
                return n.path("value").asDouble();
            }
        }
        throw new AssertionError("no " + what + " of " + item + " in " + all);
    }

    @Test
    void aGlacierAgainstItsBorehole() throws Exception {
        OtherTrades.glacier(folder);
        begin(2, "ice8.vtk", "ice16.vtk", "borehole.dat");
        look("glacier-intake");
        inUnit(source(0), "km");
        inUnit(source(1), "km");
        // The unit of the speed is stated once for all runs; metres a year.
        robot.interact(() -> session.edit("Unit", s -> s.with(new FieldUnit("ice_velocity", "m/yr", true))));
        settled();
        profile("ice_velocity x");
        // The line lies along the ice; it is set upright, from bed to surface.
        String line = ((ProfileOf) session.study().readings().getFirst().ask()).station();
        robot.interact(() -> {
            session.select(Chosen.STATION, line);
            session.go(2);
        });
        events();
        assertThat(session.results().length().symbol()).isEqualTo("m");
        enter("end-Ax", "1500");
        enter("end-Az", "0");
        enter("end-Bx", "1500");
        enter("end-Bz", "200");
        settled();
        look("glacier-line");
        robot.interact(() -> session.go(4));
        events();
        fire("against-" + source(2) + "-0");
        look("glacier-against");
        assertThat(curve(1).found()).isEqualTo(201);
        assertThat(session.study().datum()).isEqualTo(source(2));
        // The borehole states a standard deviation: it is taken as its uncertainty, and drawn.
        assertThat(curve(2).uncertainty()).isNotEmpty();
        fire("add-check");
        enter("check-tolerance", "4");
        settled();
        look("glacier-check");
        String check = session.study().checks().getFirst().id();
        // 0.6 of a range of about 24 m/yr is 2.5 %; with the uncertainty of 2 m/yr it cannot be decided.
        assertThat(session.results().checks().get(check).verdict()).isEqualTo(Verdict.UNDECIDED);
        enter("check-tolerance", "15");
        settled();
        assertThat(session.results().checks().get(check).verdict()).isEqualTo(Verdict.WITHIN);
        saved("glacier");

        JsonNode all = byHand("""
                {"version": 2, "name": "Ice",
                 "settings": {"datum": "b2", "units": [{"field": "ice_velocity", "unit": "m/yr", "stated": true}]},
                 "sources": [
                  {"kind": "run", "id": "fine", "name": "fine", "file": "ice16.vtk", "treatment": {"length": "km"}},
                  {"kind": "reference", "id": "b2", "name": "b2", "drawn": "MEASUREMENT", "files": ["borehole.dat"],
                   "answers": [{"kind": "columns", "reading": "u", "file": "borehole.dat", "abscissa": "height", "value": "v"}]}],
                 "stations": [{"kind": "line", "id": "hole", "name": "hole", "a": {"x": 1500, "y": 0, "z": 0},
                   "b": {"x": 1500, "y": 0, "z": 200}, "sampling": {"kind": "even", "samples": 401}},
                  {"kind": "region", "id": "all", "name": "all", "within": {"kind": "all"}}],
                 "readings": [{"kind": "profile", "id": "u", "name": "u", "station": "hole", "quantity": "ice_velocity.x", "unit": "m/yr"},
                  {"kind": "tally", "id": "n", "name": "fast", "stations": ["all"],
                   "measure": {"kind": "stored", "take": "COUNT", "at": "NODES", "condition": "fast"}}],
                 "quantities": [{"id": "fast", "name": "fast", "formula": "ice_velocity.x > 99 \\"m/yr\\""}],
                 "checks": [{"kind": "datum", "id": "c", "reading": "u", "norm": "LINF", "scale": "ABSOLUTE", "tolerance": 1}]}
                """, 0);
        // At the height of 200 m: 100 m/yr, as the file has it in float.
        assertThat(number(all, "u", "fine", "greatest")).isCloseTo(100, within(1e-4));
        // Of rows of 49 nodes those above 99 m/yr: 60 (1 - h / 200)^4 < 1 above 128.2 m, six of seventeen.
        assertThat(number(all, "fast", "fine", "tally")).isEqualTo(6 * 49);
    }

    @Test
    void aTubeBundleOverTimeAgainstThermocouples() throws Exception {
        OtherTrades.bundle(folder);
        begin(1, "gap.pvd", "thermo.csv");
        look("bundle-intake");
        profile("T_gas");
        // The header has a comma in quotes, the units stand in brackets: inches and Fahrenheit.
        fire("against-" + source(1) + "-0");
        look("bundle-against");
        Profile measured = curve(1);
        assertThat(measured.size()).isEqualTo(6);
        assertThat(measured.abscissa()[0]).isCloseTo(0.12, within(1e-5));
        assertThat(measured.value()[0]).isCloseTo(OtherTrades.gas(0.12, 2) + 1.5, within(0.01));
        // The last time is looked at unless another is chosen.
        assertThat(curve(0).value()[0]).isCloseTo(OtherTrades.gas(0, 2), within(1e-3));
        fire("add-check");
        enter("check-tolerance", "5");
        settled();
        look("bundle-check");
        String check = session.study().checks().getFirst().id();
        // The mesh's file does not say that its temperatures are in kelvin: that is told with the way, and stated.
        assertThat(session.results().checks().get(check).verdict()).isEqualTo(Verdict.NO_DATA);
        assertThat(session.results().checks().get(check).why())
                .contains("state the unit that is missing: of a field at Intake");
        robot.interact(() -> session.edit("Unit", s -> s.with(new FieldUnit("T_gas", "K", true))));
        settled();
        assertThat(session.results().checks().get(check).verdict()).isEqualTo(Verdict.WITHIN);
        MenuButton datum = node("study-datum");
        assertThat(datum.getText()).isEqualTo("thermo");
        saved("bundle");
        assertThat(Files.readString(folder.resolve("ledger/ledger.json"))).contains("m, assumed");

        JsonNode all = byHand("""
                {"version": 2, "name": "Bundle",
                 "settings": {"datum": "law", "axis": {"origin": {"x": 0, "y": 0, "z": 0}, "direction": {"x": 1, "y": 0, "z": 0}},
                  "time": {"kind": "at", "value": 1, "tolerance": 0},
                  "units": [{"field": "T_gas", "unit": "K", "stated": true}]},
                 "sources": [
                  {"kind": "run", "id": "gap", "name": "gap", "file": "gap.pvd", "treatment": {"length": "m"}},
                  {"kind": "run", "id": "late", "name": "late", "file": "gap.pvd", "treatment": {"length": "m", "time": {"kind": "last"}}},
                  {"kind": "reference", "id": "law", "name": "law", "drawn": "THEORY",
                   "answers": [{"kind": "formula", "reading": "along", "formula": "320 + 180 * exp(-3 * s) * (1 + 0.05 * time)", "unit": "K"}]}],
                 "stations": [
                  {"kind": "sweep", "id": "way", "name": "way", "axis": {"origin": {"x": 0, "y": 0, "z": 0}, "direction": {"x": 1, "y": 0, "z": 0}},
                   "from": 0.05, "to": 0.75, "count": 15},
                  {"kind": "section", "id": "end", "name": "end", "point": {"x": 0.75, "y": 0, "z": 0}, "normal": {"x": 1, "y": 0, "z": 0}}],
                 "readings": [
                  {"kind": "sweep", "id": "along", "name": "along", "station": "way", "measure": {"kind": "mean", "quantity": "T_gas"}},
                  {"kind": "tally", "id": "out", "name": "out", "stations": ["end"], "unit": "degC", "measure": {"kind": "mean", "quantity": "T_gas"}}],
                 "checks": [
                  {"kind": "datum", "id": "c", "reading": "along", "norm": "L2", "scale": "RANGE", "tolerance": 0.01, "judged": ["gap"]}]}
                """, 0);
        // Straight between nodes that are 0.05 m apart.
        assertThat(number(all, "out", "gap", "tally")).isCloseTo(OtherTrades.gas(0.75, 1) - 273.15, within(1e-4));
        assertThat(number(all, "out", "late", "tally")).isCloseTo(OtherTrades.gas(0.75, 2) - 273.15, within(1e-4));
    }

    @Test
    void aSpringAgainstAHandCalculation() throws Exception {
        OtherTrades.spring(folder);
        begin(1, "spring.vtu");
        inUnit(source(0), "mm");
        robot.interact(() -> session.edit(
                "Units", s -> s.with(new FieldUnit("U", "mm", true)).with(new FieldUnit("S", "MPa", true))));
        settled();
        robot.interact(() -> session.select(Chosen.SOURCE, source(0)));
        events();
        look("spring-intake");
        robot.interact(() -> session.go(4));
        events();
        fire("step-mean-over-a-part");
        choose("tally-quantity", "U z");
        settled();
        // The whole vector in one reading.
        MenuButton add = node("add-reading");
        robot.interact(() -> {
            add.show();
            add.getItems().stream()
                    .filter(i -> "Mean of a vector".equals(i.getText()))
                    .findFirst()
                    .orElseThrow()
                    .fire();
            add.hide();
        });
        settled();
        choose("vector-number", "z");
        look("spring-vector");
        var bend = (lane.reading.Vector)
                session.results().outcome(session.study().readings().getLast().id(), source(0));
        assertThat(bend.numbers().getFirst().value()).isCloseTo(-0.006, within(1e-9));
        choose("vector-kind", "area");
        assertThat(session.message()).contains("has no components");
        robot.interact(() -> session.select(
                Chosen.READING, session.study().readings().getFirst().id()));
        events();
        // Against a value that somebody calculated, with where it comes from.
        fire("against-value");
        write("against-value-number", "-6.0");
        write("against-value-unit", "mm");
        write("against-value-note", "8 F D3 n / (G d4) / 2");
        fire("against-value-add");
        look("spring-against");
        assertThat(session.study().sources()).hasSize(2);
        assertThat(session.study().datum()).isEqualTo(source(1));
        fire("add-check");
        settled();
        String check = session.study().checks().getFirst().id();
        assertThat(session.results().checks().get(check).verdict()).isEqualTo(Verdict.WITHIN);
        look("spring-check");
        saved("spring");

        JsonNode all = byHand("""
                {"version": 2, "name": "Spring",
                 "settings": {"units": [{"field": "U", "unit": "mm", "stated": true}, {"field": "S", "unit": "MPa", "stated": true}]},
                 "sources": [{"kind": "run", "id": "s", "name": "s", "file": "spring.vtu", "treatment": {"length": "mm"}}],
                 "stations": [{"kind": "region", "id": "all", "name": "all", "within": {"kind": "all"}}],
                 "readings": [{"kind": "tally", "id": "xz", "name": "xz", "stations": ["all"], "measure": {"kind": "mean", "quantity": "S.xz"}},
                  {"kind": "tally", "id": "yz", "name": "yz", "stations": ["all"], "measure": {"kind": "mean", "quantity": "S.yz"}},
                  {"kind": "tally", "id": "all-six", "name": "size", "stations": ["all"], "measure": {"kind": "mean", "quantity": "norm(S)"}},
                  {"kind": "tally", "id": "down", "name": "down", "stations": ["all"],
                   "measure": {"kind": "extreme", "quantity": "U.z", "greatest": false}}]}
                """, 0);
        // By rows the third of the six numbers is xz; read as if the diagonal came first it would have been zz.
        assertThat(number(all, "xz", "s", "tally")).isCloseTo(310, within(1e-9));
        assertThat(number(all, "yz", "s", "tally")).isZero();
        assertThat(number(all, "size", "s", "tally")).isCloseTo(310 * Math.sqrt(2), within(1e-9));
        assertThat(number(all, "down", "s", "tally")).isCloseTo(-12, within(1e-9));
    }

    @Test
    void aTankAgainstItsTapsAroundIt() throws Exception {
        OtherTrades.tank(folder);
        begin(1, "tank.vtk", "taps.txt");
        inUnit(source(0), "in");
        robot.interact(() -> session.edit("Unit", s -> s.with(new FieldUnit("T_water", "degF", true))));
        settled();
        robot.interact(() -> session.go(4));
        events();
        fire("step-around-a-shell");
        String shell = session.study().readings().getFirst().ask().stations().getFirst();
        robot.interact(() -> {
            session.select(Chosen.STATION, shell);
            session.go(2);
        });
        events();
        enter("radius", "20 \"in\"");
        settled();
        look("tank-shell");
        robot.interact(() -> session.go(4));
        events();
        choose("reading-along", "value at positions");
        open("around-places");
        look("tank-places");
        enter("around-angles", "0 to 315 step 45");
        settled();
        open("around-places");
        enter("around-positions", "36 \"in\"");
        settled();
        var ask = (AroundOf) session.study().readings().getFirst().ask();
        assertThat(ask.angles()).containsExactly(0.0, 45.0, 90.0, 135.0, 180.0, 225.0, 270.0, 315.0);
        assertThat(ask.positions().getFirst()).isCloseTo(0.9144, within(1e-12));
        fire("against-" + source(1) + "-0");
        look("tank-against");
        assertThat(curve(0).value()[1])
                .isCloseTo(Unit.of("degF").toSi(OtherTrades.water(0.508 * Math.sqrt(0.5), 0.9144)), within(1e-6));
        // The taps read 0.3 degF more and less.
        fire("add-check");
        enter("check-tolerance", "5");
        settled();
        look("tank-check");
        String check = session.study().checks().getFirst().id();
        assertThat(session.results().checks().get(check).verdict()).isEqualTo(Verdict.WITHIN);
        // The taps as points: their bearing stands beside them.
        var read = PointsTable.read(folder.resolve("taps.txt"));
        robot.interact(() -> {
            session.edit(
                    "Points",
                    s -> s.withStations(l -> {
                        l.add(new Station(
                                "taps", "taps", new Points(read.points(), null, "taps.txt", read.beside(), "")));
                        return l;
                    }));
            session.select(Chosen.STATION, "taps");
            session.go(2);
        });
        settled();
        choose("points-abscissa", "column bearing, deg");
        look("tank-points");
        assertThat(((Points) session.study().station("taps").orElseThrow().shape())
                        .drawn()
                        .unit())
                .isEqualTo(Unit.of("deg"));
        // The mean of all the water is one number; it is read of the lane itself.
        robot.interact(() -> session.edit("Quantity", s -> s.withStations(l -> {
                    l.add(new Station("all", "all of it", new Region(new Within.All())));
                    return l;
                })
                .withQuantities(l -> {
                    l.add(new Quantity(
                            "store", "stored heat", "mean(T_water over \"all of it\") - 60 \"degF\"", "K", ""));
                    return l;
                })));
        settled();
        robot.interact(() -> session.go(4));
        events();
        MenuButton add = node("add-reading");
        robot.interact(() -> {
            add.show();
            add.getItems().stream()
                    .filter(i -> "Number of a lane".equals(i.getText()))
                    .findFirst()
                    .orElseThrow()
                    .fire();
            add.hide();
        });
        settled();
        Tally store = (Tally)
                session.results().outcome(session.study().readings().getLast().id(), source(0));
        assertThat(store.value()).isCloseTo((100 + 20 * 0.9144 - 60) / 1.8, within(1e-9));
        look("tank-value");
        saved("tank");

        JsonNode all = byHand("""
                {"version": 2, "name": "Tank",
                 "settings": {"datum": "taps", "units": [{"field": "T_water", "unit": "degF", "stated": true}]},
                 "sources": [
                  {"kind": "run", "id": "tank", "name": "tank", "file": "tank.vtk", "treatment": {"length": "in"}},
                  {"kind": "reference", "id": "taps", "name": "taps", "drawn": "MEASUREMENT", "files": ["taps.txt"],
                   "answers": [{"kind": "columns", "reading": "ring", "file": "taps.txt", "abscissa": "bearing", "value": "reading"}]}],
                 "stations": [{"kind": "shell", "id": "wall", "name": "wall",
                   "axis": {"origin": {"x": 0, "y": 0, "z": 0}, "direction": {"x": 0, "y": 0, "z": 1}}, "radius": 0.508},
                  {"kind": "region", "id": "all", "name": "all", "within": {"kind": "all"}}],
                 "quantities": [{"id": "spread", "name": "spread", "formula": "max(T_water over all) - min(T_water over all)"}],
                 "readings": [
                  {"kind": "around", "id": "ring", "name": "ring", "station": "wall", "quantity": "T_water", "unit": "degF",
                   "along": "AT", "angles": [0, 45, 90, 135, 180, 225, 270, 315], "angleUnit": "deg", "positions": [0.9144]},
                  {"kind": "around", "id": "up", "name": "up", "station": "wall", "quantity": "T_water", "unit": "degF",
                   "along": "AT", "angles": [180], "angleUnit": "deg", "positions": [0.2, 0.7, 1.6]},
                  {"kind": "tally", "id": "s", "name": "s", "unit": "degF", "measure": {"kind": "value", "quantity": "spread"}}],
                 "checks": [{"kind": "datum", "id": "c", "reading": "ring", "norm": "LINF", "scale": "ABSOLUTE", "tolerance": 0.35}]}
                """, 0);
        // The taps read 0.3 degF more and less, rounded to hundredths.
        assertThat(number(all, "ring", "tank", "Linf of difference")).isCloseTo(0.3, within(0.011));
        assertThat(number(all, "s", "tank", "tally")).isCloseTo(20 * 1.8288 + 6 * 1.2192, within(1e-6));
        assertThat(Files.readAllLines(folder.resolve("byhand/profile-up.csv")).get(2))
                .startsWith("tank,0.7,m,")
                .contains(",degF,,,-0.508,");
        assertThat(Files.readAllLines(folder.resolve("byhand/profile-ring.csv")).get(3))
                .startsWith("tank,90.0,deg,118.288,degF,");
    }

    @Test
    void aDryingTunnelAgainstItsSensors() throws Exception {
        OtherTrades.tunnel(folder);
        begin(1, "tunnel.vtk", "fuehler.csv");
        look("tunnel-intake");
        inUnit(source(0), "mm");
        robot.interact(() -> session.edit("Unit", s -> s.with(new FieldUnit("luft_temp", "degC", true))));
        settled();
        profile("luft_temp");
        fire("against-" + source(1) + "-0");
        look("tunnel-against");
        // -999 stands once among the sensors: nobody said that it is none, so it counts, and the table tells.
        assertThat(curve(1).size()).isEqualTo(4);
        fire("add-check");
        enter("check-tolerance", "10");
        settled();
        String check = session.study().checks().getFirst().id();
        assertThat(session.results().checks().get(check).verdict()).isEqualTo(Verdict.OUT);
        robot.interact(() -> {
            session.select(Chosen.SOURCE, source(1));
            session.go(1);
        });
        events();
        see("-999 stands once in \"Lufttemperatur\"");
        look("tunnel-table");
        enter("table-missing", "-999");
        settled();
        assertThat(curve(1).size()).isEqualTo(3);
        assertThat(session.results().checks().get(check).verdict()).isEqualTo(Verdict.WITHIN);
        // A number of that curve, of the run and of the sensors alike: where the air has cooled to 55 degrees.
        robot.interact(() -> session.edit(
                "Add reading",
                s -> s.withReadings(l -> {
                    String line = ((ProfileOf) l.getFirst().ask()).station();
                    l.add(new Reading(
                            "cool",
                            "cool",
                            "cm",
                            new FeatureOf(
                                    new ProfileOf(line, "luft_temp"),
                                    FeatureOf.What.CROSSING,
                                    55,
                                    1,
                                    "degC",
                                    "",
                                    null,
                                    null)));
                    return l;
                })));
        settled();
        robot.interact(() -> {
            session.select(Chosen.READING, "cool");
            session.go(4);
        });
        events();
        // They answer by what they say to the curve, and are not proposed.
        assertThat(robot.lookup("#against-" + source(1) + "-0").queryAll()).isEmpty();
        look("tunnel-feature");
        Tally run = (Tally) session.results().outcome("cool", source(0));
        assertThat(run.unit().fromSi(run.value())).isCloseTo(144, within(1e-4));
        Tally sensors = (Tally) session.results().outcome("cool", source(1));
        // Between 58.1 at 0.7 m and 52.6 at 1.9 m.
        assertThat(sensors.value()).isCloseTo(0.7 + 1.2 * 3.1 / 5.5, within(1e-9));
        enter("feature-at", "56");
        settled();
        assertThat(((Tally) session.results().outcome("cool", source(0))).value())
                .isCloseTo(1.2, within(1e-6));
        choose("feature-what", "slope of the straight line through it");
        assertThat(((Tally) session.results().outcome("cool", source(0))).unit().label())
                .isEqualTo("K/m");
        saved("tunnel");

        String byHand = """
                {"version": 2, "name": "Drying tunnel",
                 "settings": {"datum": "sensors", "recipes": [{"file": "fuehler*.csv", "missing": [%s]}],
                  "units": [{"field": "luft_temp", "unit": "degC", "stated": true}, {"field": "wind", "unit": "m/s", "stated": true}]},
                 "sources": [
                  {"kind": "run", "id": "tunnel", "name": "tunnel", "file": "tunnel.vtk", "treatment": {"length": "mm"}},
                  {"kind": "reference", "id": "sensors", "name": "sensors", "drawn": "MEASUREMENT", "files": ["fuehler.csv"],
                   "answers": [{"kind": "columns", "reading": "along", "file": "fuehler.csv", "abscissa": "Weg", "value": "Lufttemperatur"}]}],
                 "quantities": [{"id": "air", "name": "air", "formula": "luft_temp", "unit": "degC"},
                   {"id": "drop", "name": "drop", "formula": "abs(luft_temp - 333.15 \\"K\\")"},
                   {"id": "wind", "name": "wind", "formula": "wind"}],
                 "stations": [
                  {"kind": "line", "id": "mid", "name": "mid", "a": {"x": 0, "y": 0.3, "z": 0.25}, "b": {"x": 2.4, "y": 0.3, "z": 0.25},
                   "sampling": {"kind": "even", "samples": 25}},
                  {"kind": "section", "id": "half", "name": "half way", "point": {"x": 1.25, "y": 0, "z": 0}, "normal": {"x": 1, "y": 0, "z": 0}},
                  {"kind": "region", "id": "all", "name": "all", "within": {"kind": "all"}}],
                 "readings": [
                  {"kind": "profile", "id": "along", "name": "Along the tunnel", "station": "mid", "quantity": "air"},
                  {"kind": "tally", "id": "through", "name": "Air through", "stations": ["half"], "unit": "m3/s",
                   "measure": {"kind": "flow", "vector": "wind", "factor": 1, "factorUnit": "", "carried": "NOTHING"}},
                  {"kind": "tally", "id": "mean", "name": "Mean drop", "stations": ["all"], "measure": {"kind": "mean", "quantity": "drop"}}],
                 "checks": [{"kind": "datum", "id": "c", "reading": "along", "tolerance": 0.6, "norm": "LINF", "scale": "ABSOLUTE"}]}
                """;
        byHand(byHand.formatted(""), 1);
        JsonNode all = byHand(byHand.formatted("\"-999\""), 0);
        // At 1.9 m: 61 - 10 * 1.9 / 2.4 against 52.6.
        assertThat(number(all, "Along the tunnel", "tunnel", "Linf of difference"))
                .isCloseTo(61 - 19 / 2.4 - 52.6, within(1e-6));
        // Wind of 1.5 to 2 m/s over 0.6 x 0.5 m, across the section's normal.
        assertThat(number(all, "Air through", "tunnel", "tally")).isCloseTo(1.75 * 0.3, within(1e-9));
        // |10 x - 2 y| over a unit square, which has a kink inside of cells.
        assertThat(number(all, "Mean drop", "tunnel", "tally")).isCloseTo(4 + 2 / 15.0, within(1e-3));
    }
}
