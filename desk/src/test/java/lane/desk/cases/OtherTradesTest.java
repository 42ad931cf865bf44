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
import lane.quantity.FieldUnit;
import lane.reading.Profile;
import lane.reading.ProfileOf;
import lane.station.Line;
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

    /** A place where the finest line is asked for lies in the mesh, whatever its shape. */
    @Test
    void theFirstLineOfAnyMeshCrossesIt() throws Exception {
        OtherTrades.spring(folder);
        OtherTrades.bundle(folder);
        begin(2, "spring.vtu", "gap.pvd");
        profile("U magnitude");
        assertThat(session.study().stations().getFirst().shape()).isInstanceOf(Line.class);
    }
}
