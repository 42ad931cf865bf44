package lane.desk.cases;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import javafx.event.ActionEvent;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ListView;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.TextField;
import javafx.scene.layout.Pane;
import lane.desk.Chosen;
import lane.desk.Session;
import lane.desk.Windowed;
import lane.desk.intake.FileDrop;
import lane.field.Field;
import lane.field.Values;
import lane.formats.vtk.VtkXmlWriter;
import lane.formats.vtk.VtkXmlWriter.Options;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.reading.HistoryOf;
import lane.reading.MonitorOf;
import lane.reading.Outcome;
import lane.reading.OverTimesOf;
import lane.reading.Profile;
import lane.reading.SettlingOf;
import lane.reading.Several;
import lane.study.ChartLook;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Must in a cellar's tank of 1.2 x 0.8 x 1.5 m warming up over a day and a half, with two probes and a log. */
class CellarTest extends Windowed {
    @TempDir
    Path folder;

    private static double warm(double hours) {
        return 20 + 15 * (1 - Math.exp(-hours / 6));
    }

    private void files() throws Exception {
        Mesh mesh = BoxMesh.of(CellShape.WEDGE, new int[] {4, 3, 5}, new double[] {1.2, 0.8, 1.5}, 0, 2);
        for (int n = 0; n < 13; n++) {
            double[] temp = new double[mesh.nodeCount()];
            for (int i = 0; i < temp.length; i++) {
                temp[i] = warm(3 * n) + 0.5 * (mesh.xyz()[3 * i + 2] - 0.75);
            }
            VtkXmlWriter.writeGrid(
                    folder.resolve(String.format("must_%04d.vtu", 3 * n)),
                    mesh,
                    List.of(new Field("must_temp", Field.At.NODE, 1, Unit.UNKNOWN, Values.of(temp))),
                    Options.DEFAULT);
        }
        probe("fuehler_nord.csv", 0);
        probe("fuehler_sued.csv", 0.6);
        var log = new StringBuilder("# iter   res_T   heat_out\n");
        for (int i = 0; i < 400; i++) {
            log.append(String.format(
                    Locale.ROOT, "%d %.4e %.6f%n", i, Math.pow(10, -i / 60.0), 120 * (1 - Math.exp(-i / 40.0))));
        }
        Files.writeString(folder.resolve("solver.txt"), log);
    }

    private void probe(String name, double more) throws Exception {
        var text = new StringBuilder("Fühler, Keller 4\n\nZeit;Temperatur;Bemerkung\nh;°C;\n");
        for (int i = 0; i < 721; i++) {
            double t = i * 0.05;
            String value = i == 100 ? "" : String.format(Locale.GERMANY, "%.4f", warm(t) + more);
            text.append(String.format(Locale.GERMANY, "%.2f;%s;%n", t, value));
        }
        Files.writeString(folder.resolve(name), text);
    }

    private void fire(String menu, String item) throws Exception {
        MenuButton button = node(menu);
        MenuItem found = button.getItems().stream()
                .filter(i -> i.getText() != null && i.getText().startsWith(item))
                .findFirst()
                .orElseThrow();
        robot.interact(found::fire);
        settled();
    }

    private Outcome answer(String lane) {
        return session.results().outcome(session.selected(Chosen.READING), lane);
    }

    private String source(String name) {
        return session.study().sources().stream()
                .filter(s -> s.name().contains(name))
                .findFirst()
                .orElseThrow()
                .id();
    }

    private void open() throws Exception {
        files();
        show(Session::fresh);
        robot.interact(() -> FileDrop.add(
                session,
                java.util.stream.IntStream.range(0, 13)
                        .mapToObj(n -> folder.resolve(String.format("must_%04d.vtu", 3 * n)))
                        .toList()));
        await(() -> session.results().runs().size() == 1);
        settled();
    }

    @Test
    void aRunOverTime() throws Exception {
        open();
        robot.interact(() -> session.edit(
                "Unit", s -> s.withUnits(l -> List.of(new lane.quantity.FieldUnit("must_temp", "degC", true)))));
        robot.interact(() -> session.go(4));
        settled();
        fire("add-reading", "Mean");
        Button over = node("over-time");
        robot.interact(over::fire);
        settled();
        String run = session.study().sources().getFirst().id();
        assertThat(session.study()
                        .reading(session.selected(Chosen.READING))
                        .orElseThrow()
                        .ask())
                .isInstanceOf(HistoryOf.class);
        var p = (Profile) answer(run);
        assertThat(p.size()).isEqualTo(13);
        assertThat(p.unit().fromSi(p.value()[4])).isCloseTo(warm(12), within(1e-9));
        assertThat(p.note()).contains("seconds, which the files do not say");
        look("history0");
        MenuButton how = node("history-settings");
        robot.interact(how::show);
        popup("history-menu");
        enter("time-unit", "h");
        settled();
        robot.interact(this.<MenuButton>node("history-settings")::hide);
        assertThat(((Profile) answer(run)).abscissa()[4]).isEqualTo(12 * 3600.0);
        look("history");

        // A click in the chart looks at that time everywhere.
        Pane chart = node("profile-chart");
        await(() -> chart.lookup("#chart-now").isVisible());
        javafx.scene.control.Slider slider = node("time-slider");
        assertThat(slider.getMax()).isEqualTo(12);
        robot.interact(() -> slider.setValue(4));
        settled();
        assertThat(session.results().runs().get(run).time()).isEqualTo(12);
        assertThat(((Profile) answer(run)).abscissa()[12]).isEqualTo(36 * 3600.0);

        // It plays on to the last time, and stops there.
        Button play = node("time-play");
        robot.interact(play::fire);
        await(() -> session.results().runs().get(run).time() == 36);
        robot.interact(() -> slider.setValue(4));
        settled();
        fire("curve-numbers", "Settled or not");
        // The last fifth of 13 values is too little to begin with.
        assertThat(((Several) answer(run)).note()).contains("values from");
        enter("settling-window", "20");
        settled();
        assertThat(((Outcome.Absent) answer(run)).reason()).contains("take a wider one");
        enter("settling-window", "50");
        settled();
        var made = (Several) answer(run);
        assertThat(made.of("settled").orElseThrow().value()).isZero();
        see("still drifts");
        look("settling");
        MenuItem slope = ((MenuButton) node("add-reading")).getItems().getFirst();
        assertThat(slope.getText()).isNotBlank();

        robot.interact(() -> session.select(
                Chosen.READING,
                session.study().readings().stream()
                        .filter(r -> r.ask() instanceof HistoryOf)
                        .findFirst()
                        .orElseThrow()
                        .id()));
        events();
        fire("curve-numbers", "Rate of change");
        assertThat(session.results().unit(session.selected(Chosen.READING)).label())
                .contains("K");
        look("rate");
        fire("add-reading", "Profiles over times");
        assertThat(session.study()
                        .reading(session.selected(Chosen.READING))
                        .orElseThrow()
                        .ask())
                .isInstanceOf(OverTimesOf.class);
        assertThat(((Profile) answer(run)).beside()).hasSize(5);
        look("family");
        MenuButton many = node("over-times-settings");
        robot.interact(many::show);
        choose("over-times-show", OverTimesOf.Show.MEAN.word());
        robot.interact(many::hide);
        assertThat(((Profile) answer(run)).beside()).hasSize(2);
        look("envelope");
    }

    @Test
    void logsAsLanes() throws Exception {
        files();
        show(Session::fresh);
        robot.interact(
                () -> FileDrop.add(session, List.of(folder.resolve("fuehler_nord.csv"), folder.resolve("solver.txt"))));
        await(() -> session.study().sources().size() == 2);
        robot.interact(() -> FileDrop.add(session, List.of(folder.resolve("fuehler_sued.csv"))));
        await(() -> session.study().sources().size() == 3);
        settled();
        robot.interact(() -> {
            session.go(1);
            session.select(Chosen.SOURCE, source("nord"));
        });
        events();
        look("log-table");
        fire("monitor-columns", "Temperatur");
        assertThat(session.stop()).isEqualTo(4);
        robot.interact(() -> {
            session.go(1);
            session.select(Chosen.SOURCE, source("sued"));
        });
        events();
        fire("monitor-columns", "Temperatur");
        assertThat(session.study().readings()).hasSize(1);
        assertThat(session.study().readings().getFirst().ask()).isEqualTo(new MonitorOf("Temperatur", "time", "h"));
        assertThat(((Profile) answer(source("sued"))).note()).contains("1 of them without a value");
        fire("curve-numbers", "Settled or not");
        assertThat(((Several) answer(source("nord"))).of("mean").orElseThrow().shown())
                .isCloseTo(
                        ((Several) answer(source("sued")))
                                        .of("mean")
                                        .orElseThrow()
                                        .shown()
                                - 0.6,
                        within(1e-6));
        look("log-settled");
        String settling = session.selected(Chosen.READING);
        assertThat(((SettlingOf) session.study().reading(settling).orElseThrow().ask()).window())
                .isEqualTo(0.2);
        enter("settling-window", "5");
        settled();
        robot.interact(() -> session.select(
                Chosen.READING, session.study().readings().getFirst().id()));
        events();
        look("logs");
        // The beginning of the window is dragged on the curve; the wheel looks closer, a double click shows all.
        await(() -> robot.lookup("#settling-edge")
                .tryQuery()
                .filter(n -> n.isVisible() && n.getParent().isVisible())
                .isPresent());
        robot.drag(robot.lookup("#settling-edge").<javafx.scene.Node>query()).dropBy(-60, 0);
        settled();
        assertThat(((SettlingOf) session.study().reading(settling).orElseThrow().ask()).window())
                .isBetween(0.1, 0.5);
        Pane chart = node("profile-chart");
        assertThat(chart.getAccessibleHelp()).isEqualTo("shows 0 to 36 h");
        robot.moveTo(chart).scroll(3, javafx.geometry.VerticalDirection.UP);
        await(() -> !chart.getAccessibleHelp().equals("shows 0 to 36 h"));
        press(javafx.scene.input.KeyCode.DIGIT0);
        robot.doubleClickOn(chart);
        await(() -> chart.getAccessibleHelp().equals("shows 0 to 36 h"));

        robot.interact(() -> {
            session.go(1);
            session.select(Chosen.SOURCE, source("solver"));
        });
        events();
        fire("monitor-columns", "All 2 columns");
        assertThat(session.study().readings()).extracting(r -> r.name()).contains("res_T", "heat_out");
        String residual = session.study().readings().stream()
                .filter(r -> r.name().equals("res_T"))
                .findFirst()
                .orElseThrow()
                .id();
        robot.interact(() -> session.select(Chosen.READING, residual));
        events();
        MenuButton axes = node("chart-axes");
        robot.interact(axes::show);
        popup("axes-menu");
        choose("chart-y-scale", ChartLook.Scale.LOG.word());
        robot.interact(this.<MenuButton>node("chart-axes")::hide);
        assertThat(session.study().chart(residual).y().scale()).isEqualTo(ChartLook.Scale.LOG);
        look("log-axis");
        MenuButton style = node("chart-style");
        robot.interact(style::show);
        events();
        popup("style-menu");
        CheckBox legend = node("chart-legend");
        robot.interact(legend::fire);
        settled();
        robot.interact(this.<MenuButton>node("chart-style")::hide);
        events();
        MenuButton again = node("chart-style");
        robot.interact(again::show);
        events();
        CheckBox heat = node("below-heat-out");
        robot.interact(heat::fire);
        settled();
        look("panels");
        // A log that grows keeps its verdict up to date.
        robot.interact(() -> session.select(Chosen.READING, settling));
        settled();
        double before =
                ((Several) answer(source("nord"))).of("mean").orElseThrow().value();
        var more = new StringBuilder();
        for (int i = 0; i < 200; i++) {
            more.append(String.format(Locale.GERMANY, "%.2f;41,5;%n", 36.05 + 0.05 * i));
        }
        Files.writeString(folder.resolve("fuehler_nord.csv"), more, java.nio.file.StandardOpenOption.APPEND);
        await(() -> session.results().outcome(settling, source("nord")) instanceof Several now
                && now.of("mean").orElseThrow().value() > before + 5);
        assertThat(session.study().chart(residual).below()).containsExactly("heat-out");
    }

    /** A log of hundreds of columns: found by their names, and read together. */
    @Test
    void columnsOfAWideLogAreSearched() throws Exception {
        var text = new StringBuilder("t [min]");
        for (int c = 0; c < 300; c++) {
            text.append(';').append(c % 30 == 7 ? "Decke " : "Fass ").append(c).append(" [°C]");
        }
        for (int r = 0; r < 50; r++) {
            text.append('\n').append(r);
            for (int c = 0; c < 300; c++) {
                text.append(';').append(10 + c).append(',').append(r % 10).append('5');
            }
        }
        Files.writeString(folder.resolve("breit.csv"), text);
        open();
        robot.interact(() -> FileDrop.add(session, List.of(folder.resolve("breit.csv"))));
        settled();
        robot.interact(() -> {
            session.go(1);
            session.select(Chosen.SOURCE, source("breit"));
        });
        events();
        ListView<Integer> columns = node("columns");
        assertThat(columns.getItems()).hasSize(301);
        // Only those that are seen are made.
        assertThat(robot.lookup(n -> n instanceof TextField
                                && String.valueOf(n.getId()).startsWith("unit-of-"))
                        .queryAll())
                .hasSizeBetween(5, 30);
        // Far down, a unit is stated: what is built anew is looked at where it was.
        robot.interact(() -> columns.scrollTo(200));
        events();
        String named = "unit-of-Fass 201";
        TextField unit = robot.lookup(n -> named.equals(n.getId())).query();
        robot.interact(() -> {
            unit.setText("K");
            unit.fireEvent(new ActionEvent());
        });
        settled();
        await(() -> {
            TextField anew = robot.lookup(n -> named.equals(n.getId()))
                    .tryQuery()
                    .map(TextField.class::cast)
                    .orElse(null);
            return anew != null && anew != unit && "K".equals(anew.getText());
        });
        onFx(() -> {
            TextField search = node("columns-search");
            search.setText("decke");
            return search;
        });
        await(() -> columns.getItems().size() == 10);
        see("10 of 301 columns");
        MenuButton menu = node("monitor-columns");
        robot.interact(menu::show);
        events();
        look("wide-log");
        assertThat(menu.getItems()).hasSize(13);
        robot.interact(menu::hide);
        fire("monitor-columns", "The 10 columns found");
        settled();
        assertThat(session.study().readings())
                .extracting(r -> r.name())
                .hasSize(10)
                .contains("Decke 7", "Decke 277");
        Profile curve = (Profile)
                session.results().outcome(session.study().readings().get(1).id(), source("breit"));
        assertThat(curve.size()).isEqualTo(50);
        assertThat(curve.unit().fromSi(curve.value()[3])).isCloseTo(10 + 37 + 0.35, within(1e-9));
    }
}
