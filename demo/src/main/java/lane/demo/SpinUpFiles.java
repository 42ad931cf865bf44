package lane.demo;

import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import lane.check.Check;
import lane.check.Norm;
import lane.check.Scale;
import lane.field.Treatment;
import lane.field.Turn;
import lane.formats.io.AtomicFile;
import lane.formats.study.StudyJson;
import lane.measure.Loads;
import lane.measure.Loads.On;
import lane.measure.Mean;
import lane.measure.Moment;
import lane.mesh.Axis;
import lane.mesh.Point;
import lane.quantity.Component;
import lane.quantity.FieldUnit;
import lane.quantity.Quantity;
import lane.reading.HistoryOf;
import lane.reading.Reading;
import lane.reading.TallyOf;
import lane.reference.Curve;
import lane.station.OnPart;
import lane.station.Points;
import lane.station.Station;
import lane.study.Pictures;
import lane.study.Settings;
import lane.study.Source;
import lane.study.Study;

/** The jacket's start from rest: 40 times of the plane run, and a study of them beside that of the jacket. */
final class SpinUpFiles {
    static final String STUDY = "spin-up.lane.json";
    private static final String RUN = "jacket-spin-up";
    /** Far from the inlet, in the middle of the gap. */
    private static final Point PLACE = new Point(0.033, 0, 0.1);

    private SpinUpFiles() {}

    static void write(Path folder, JacketSolver flow) {
        var spin = new SpinUp(flow);
        var grids = new StringBuilder();
        var rotors = new StringBuilder();
        for (int i = 0; i < SpinUp.TIMES; i++) {
            spin.to(SpinUp.time(i));
            var plane = new JacketPlane(spin.now());
            String at = String.format(Locale.ROOT, "%02d", i);
            plane.grid(folder.resolve(RUN).resolve("t" + at + ".vtu"));
            plane.wall(folder.resolve(RUN).resolve("rotor" + at + ".vtp"), true);
            grids.append(set(spin.time(), RUN + "/t" + at + ".vtu"));
            rotors.append(set(spin.time(), RUN + "/rotor" + at + ".vtp"));
        }
        AtomicFile.write(folder.resolve(RUN + ".pvd"), collection(grids));
        AtomicFile.write(folder.resolve("rotor.pvd"), collection(rotors));
        StudyJson.save(study(), folder.resolve(STUDY));
    }

    private static String set(double time, String file) {
        return "    <DataSet timestep=\"" + time + "\" file=\"" + file + "\"/>\n";
    }

    private static String collection(StringBuilder sets) {
        return "<?xml version=\"1.0\"?>\n<VTKFile type=\"Collection\" version=\"1.0\">\n  <Collection>\n" + sets
                + "  </Collection>\n</VTKFile>\n";
    }

    private static Study study() {
        Treatment treatment =
                Treatment.NONE.inLength("m").withTurn(new Turn("y", "x")).withOnWall("wallShear", false);
        Map<String, Double> c = new LinkedHashMap<>();
        c.put("u", Jacket.swirl(PLACE.x()));
        StringBuilder series = new StringBuilder("u");
        double[][] terms = SpinUp.series(PLACE.x(), 20);
        for (int n = 0; n < terms.length; n++) {
            c.put("a" + (n + 1), terms[n][0]);
            c.put("k" + (n + 1), terms[n][1]);
            series.append(" + a").append(n + 1).append("*exp(-k").append(n + 1).append("*time)");
        }
        var theory = new Source.Reference(
                "series",
                "series",
                Source.Kind.THEORY,
                List.of(),
                c,
                List.of(new Curve.ByFormula("swirl-start", series.toString(), "m/s")));
        var loads = new Loads("", 0, "wallShear", On.FLUID, On.FLUID);
        return Study.of(
                "Spindle jacket, start from rest",
                new Settings(
                        "series",
                        List.of(),
                        Axis.Z,
                        lane.field.TimeSelector.LAST,
                        List.of(
                                new FieldUnit("velocity", "m/s", true),
                                new FieldUnit("pressure", "Pa", true),
                                new FieldUnit("temperature", "K", true),
                                new FieldUnit("wallShear", "Pa", true)),
                        List.of()),
                List.of(
                        new Source.Simulation(
                                "spin-up", "spin-up", RUN + ".pvd", List.of("rotor.pvd"), "", "", treatment),
                        theory),
                List.of(new Quantity("swirl", "swirl", "velocity", Component.SWIRL, "m/s")),
                List.of(),
                List.of(
                        new Station("middle", "middle, far in", new Points(List.of(PLACE))),
                        new Station("rotor", "rotor", new OnPart("rotor"))),
                List.of(
                        new Reading(
                                "swirl-start",
                                "Swirl in the middle",
                                "m/s",
                                new HistoryOf(new TallyOf(List.of("middle"), new Mean("swirl")), "s", null, null)),
                        new Reading(
                                "torque-start",
                                "Rotor torque",
                                "mN m",
                                new HistoryOf(
                                        new TallyOf(List.of("rotor"), new Moment(loads, Axis.Z)), "s", null, null))),
                List.of(new Check("start", "swirl-start", Norm.L2, Scale.RANGE, 0.02, "", List.of("spin-up"))),
                Pictures.NONE);
    }
}
