package lane.demo;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import lane.base.Work;
import lane.check.Verdict;
import lane.formats.FileLibrary;
import lane.formats.study.StudyJson;
import lane.mesh.Point;
import lane.reading.Balance;
import lane.reading.Profile;
import lane.reading.Tally;
import lane.station.Line;
import lane.station.Station;
import lane.study.Evaluator;
import lane.study.Results;
import lane.study.Study;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The demo is solved, not painted: its errors fall at the order of its method, and its balances close. */
class DemoTest {
    private static final List<String> RUNS = List.of("coarse", "medium", "fine");

    @TempDir
    static Path folder;

    private static Results results;

    @BeforeAll
    static void make() {
        Study study = StudyJson.load(DemoFiles.make(folder));
        // A line through nodes of all three meshes: only the errors of the method are left, none of the facets.
        double c = Math.cos(Math.toRadians(40));
        double s = Math.sin(Math.toRadians(40));
        Station gap = study.station("gap-mid").orElseThrow();
        Line line = (Line) gap.shape();
        study = study.with(gap.shaped(line.between(
                new Point(Jacket.RI * c, Jacket.RI * s, 0.06), new Point(Jacket.RO * c, Jacket.RO * s, 0.06))));
        results = new Evaluator(new FileLibrary(folder)).evaluate(study, Work.QUIET);
    }

    private static double order(double coarse, double fine) {
        return Math.log(Math.abs(coarse) / Math.abs(fine)) / Math.log(2);
    }

    private static double error(String check, String run) {
        return results.checks().get(check).lanes().get(run).difference();
    }

    @Test
    void theSwirlConvergesToTheExactOneAtSecondOrder() {
        assertThat(order(error("swirl-l2", "coarse"), error("swirl-l2", "medium")))
                .isBetween(1.8, 2.5);
        assertThat(order(error("swirl-l2", "medium"), error("swirl-l2", "fine")))
                .isBetween(1.8, 2.5);
        assertThat(order(error("axial-l2", "medium"), error("axial-l2", "fine")))
                .isBetween(1.9, 2.1);
        assertThat(results.checks().get("swirl-l2").verdict()).isEqualTo(Verdict.WITHIN);
    }

    @Test
    void massFlowConvergesToTheFormulaAtTheOrderOfItsFacets() {
        assertThat(order(error("flow", "coarse"), error("flow", "medium"))).isBetween(1.9, 2.1);
        assertThat(order(error("flow", "medium"), error("flow", "fine"))).isBetween(1.9, 2.1);
        double exact = Jacket.RHO * Jacket.volumeFlow();
        assertThat(((Tally) results.outcome("mass-flow", "theory")).value()).isCloseTo(exact, within(1e-12));
        assertThat(((Tally) results.outcome("mass-flow", "fine")).value()).isCloseTo(exact, within(0.003 * exact));
    }

    @Test
    void theTorqueExceedsTheDevelopedOneByTheSwirlThatIsCarriedOut() {
        assertThat(Jacket.developedTorque()).isCloseTo(0.022208, within(1e-6));
        Balance b = (Balance) results.outcome("angular-momentum", "fine");
        assertThat(b.terms().getFirst().value())
                .isBetween(1.06 * Jacket.developedTorque(), 1.10 * Jacket.developedTorque());
        assertThat(Math.abs(b.relative())).isLessThan(0.003);
        assertThat(b.closure()).isLessThan(1e-14);
        // The edge of the inlet is singular: the torque converges, at an order between one and two.
        double c = torque("coarse");
        double m = torque("medium");
        double f = torque("fine");
        assertThat(order(m - c, f - m)).isBetween(1.0, 2.0);
        Balance mass = (Balance) results.outcome("mass", "coarse");
        assertThat(mass.relative()).isCloseTo(0, within(1e-12));
    }

    @Test
    void thePlaneRunStandsForTheFullTurnWithoutFacets() {
        double exact = Jacket.RHO * Jacket.volumeFlow();
        double fine = Math.abs(((Tally) results.outcome("mass-flow", "fine")).value() - exact);
        double plane = Math.abs(((Tally) results.outcome("mass-flow", "axi")).value() - exact);
        assertThat(plane).isLessThan(fine).isGreaterThan(0);
        // The same solution: what differs are the facets, about (pi / 108)^2 / 2 of a radius.
        assertThat(torque("axi")).isCloseTo(torque("fine"), within(0.002 * torque("fine")));
        Balance b = (Balance) results.outcome("angular-momentum", "axi");
        assertThat(Math.abs(b.relative())).isLessThan(0.003);
        assertThat(((Profile) results.outcome("swirl-gap", "axi")).found()).isEqualTo(201);
        assertThat(error("swirl-l2", "axi")).isCloseTo(error("swirl-l2", "fine"), within(1e-6));
    }

    private static double torque(String run) {
        return ((Tally) results.outcome("rotor-torque", run)).value();
    }

    @Test
    void farFromTheInletTheSwirlIsDevelopedAndNearItIsNot() {
        assertThat(results.checks().get("inlet-l2").verdict()).isEqualTo(Verdict.OUT);
        assertThat(results.checks().get("inlet-l2").lanes().get("fine").relative())
                .isGreaterThan(0.1);
        assertThat(results.checks().get("outlet-temperature").verdict()).isEqualTo(Verdict.UNDECIDED);
        for (String run : RUNS) {
            assertThat(((Profile) results.outcome("swirl-gap", run)).found()).isEqualTo(201);
        }
    }

    @Test
    void theTemperatureStaysBetweenInletAndShellAndTheLayerIsThin() {
        var flow = new JacketSolver(96, 288);
        double[] last = flow.temperature[flow.z.length - 1];
        assertThat(last[0]).isCloseTo(Jacket.T_IN, within(1e-6));
        for (int j = 1; j < last.length; j++) {
            assertThat(last[j])
                    .isBetween(Jacket.T_IN - 0.05, Jacket.T_SHELL + 1e-9)
                    .isGreaterThanOrEqualTo(last[j - 1] - 0.05);
        }
        // Thin layer: theta = integral exp(-x^3) / Gamma(4/3) with eta = y (g / (9 a z))^(1/3).
        double g = -(flow.axial[96] - flow.axial[95]) / (flow.r[96] - flow.r[95]);
        double a = Jacket.K / (Jacket.RHO * Jacket.CP);
        int j = 88;
        double eta = (Jacket.RO - flow.r[j]) * Math.cbrt(g / (9 * a * Jacket.LENGTH));
        double sum = 0;
        for (int i = 0; i < 2000; i++) {
            double x = eta * (i + 0.5) / 2000;
            sum += Math.exp(-x * x * x) * eta / 2000;
        }
        double theta = (Jacket.T_SHELL - last[j]) / (Jacket.T_SHELL - Jacket.T_IN);
        assertThat(theta).isCloseTo(sum / 0.8929795115692493, within(0.04));
    }

    @Test
    void theFilesAreTheSameEachTimeAndSayThatTheyAreSimulated(@TempDir Path other) throws Exception {
        DemoFiles.make(other);
        for (String file :
                List.of("coarse.vtu", "rake.csv", "torque-logger.csv", "spindle.lane.json", "coarse-parts/rotor.vtp")) {
            assertThat(Files.mismatch(folder.resolve(file), other.resolve(file)))
                    .as(file)
                    .isEqualTo(-1);
        }
        assertThat(Files.readString(other.resolve("rake.csv"))).contains("simulated");
        assertThat(Files.readString(other.resolve("torque-logger.csv"))).contains("simulated");
    }

    /** The demo study as it was written before studies had kinds of checks. */
    @Test
    void aStudyWrittenBeforeIsTheSameStudy() throws Exception {
        try (var in = DemoTest.class.getResourceAsStream("version-1.lane.json")) {
            String text = new String(in.readAllBytes(), java.nio.charset.StandardCharsets.UTF_8);
            Study now = DemoStudy.make();
            Study old = StudyJson.of(text.replace("\"wall-shear\"", "\"wallShear\""), "version 1");
            // Since then it has read the torque logger over time.
            assertThat(now.readings().subList(0, old.readings().size())).isEqualTo(List.copyOf(old.readings()));
            assertThat(old.stations()).isEqualTo(now.stations());
            assertThat(old.checks()).isEqualTo(now.checks());
            assertThat(old.settings()).isEqualTo(now.settings());
            // Since then the demo's definitions lost those that only named a field, and its runs say that they are in
            // metres.
            assertThat(old.quantities().keys()).containsAll(now.quantities().keys());
            assertThat(old.sources().keys()).isEqualTo(now.sources().keys());
        }
    }
}
