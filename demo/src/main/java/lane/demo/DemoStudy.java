package lane.demo;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import lane.check.Check;
import lane.check.Closure;
import lane.check.Norm;
import lane.check.Scale;
import lane.field.TimeSelector;
import lane.field.Treatment;
import lane.field.Turn;
import lane.measure.Flow;
import lane.measure.Flow.Carried;
import lane.measure.Force;
import lane.measure.Loads;
import lane.measure.Loads.On;
import lane.measure.Mean;
import lane.measure.Moment;
import lane.measure.WeightedMean;
import lane.mesh.Axis;
import lane.mesh.Point;
import lane.quantity.Component;
import lane.quantity.FieldUnit;
import lane.quantity.Quantity;
import lane.reading.BalanceOf;
import lane.reading.BalanceOf.Term;
import lane.reading.MonitorOf;
import lane.reading.ProfileOf;
import lane.reading.Reading;
import lane.reading.SettlingOf;
import lane.reading.SweepOf;
import lane.reading.TallyOf;
import lane.reference.ColumnUncertainty;
import lane.reference.Curve;
import lane.station.Abscissa;
import lane.station.Line;
import lane.station.OnPart;
import lane.station.Sampling;
import lane.station.Section;
import lane.station.Sheet;
import lane.station.Shell;
import lane.station.Station;
import lane.station.Sweep;
import lane.study.Pictures;
import lane.study.Settings;
import lane.study.Source;
import lane.study.Study;

/** The study of the spindle jacket, as its file opens. */
final class DemoStudy {
    private static final String SWIRL = "A*r + B/r";
    private static final String AXIAL = "G/(4*mu)*(Ro^2 - r^2 - (Ro^2 - Ri^2)*ln(Ro/r)/ln(Ro/Ri))";
    private static final String FLOW = "rho*pi*G/(8*mu)*(Ro^4 - Ri^4 - (Ro^2 - Ri^2)^2/ln(Ro/Ri))";

    private DemoStudy() {}

    static Study make() {
        return Study.of(
                "Spindle jacket",
                new Settings("theory", List.of(), Axis.Z, TimeSelector.LAST, units(), List.of()),
                sources(),
                quantities(),
                List.of(),
                stations(),
                readings(),
                checks(),
                Pictures.NONE);
    }

    private static List<Source> sources() {
        return List.of(run("coarse"), run("medium"), run("fine"), plane(), theory(), rig());
    }

    private static Source run(String name) {
        return run(name, name, "spindle jacket", Treatment.NONE.inLength("m"));
    }

    /** The plane run that stands for the full turn, of a family of its own. */
    private static Source plane() {
        return run(
                "axi",
                "jacket-axi",
                "plane jacket",
                Treatment.NONE.inLength("m").withTurn(new Turn("y", "x")));
    }

    private static Source run(String name, String file, String family, Treatment treatment) {
        List<String> parts = List.of("inlet", "outlet", "rotor", "shell").stream()
                .map(p -> file + "-parts/" + p + ".vtp")
                .toList();
        return new Source.Simulation(
                name, name, file + ".vtu", parts, "", family, treatment.withOnWall("wallShear", false));
    }

    private static Source theory() {
        Map<String, Double> c = new LinkedHashMap<>();
        c.put("Ri", Jacket.RI);
        c.put("Ro", Jacket.RO);
        c.put("L", Jacket.LENGTH);
        c.put("G", Jacket.G);
        c.put("mu", Jacket.MU);
        c.put("rho", Jacket.RHO);
        c.put("Omega", Jacket.OMEGA);
        c.put("A", Jacket.A);
        c.put("B", Jacket.B);
        return new Source.Reference(
                "theory",
                "theory",
                Source.Kind.THEORY,
                List.of(),
                c,
                List.of(
                        new Curve.ByFormula("swirl-gap", SWIRL, "m/s"),
                        new Curve.ByFormula("axial-gap", AXIAL, "m/s"),
                        new Curve.ByFormula("swirl-inlet", SWIRL, "m/s"),
                        new Curve.ByFormula("mass-flow", FLOW, "kg/s"),
                        new Curve.ByFormula("mid-flow", FLOW, "kg/s"),
                        new Curve.ByFormula("rotor-torque", "4*pi*mu*B*L", "N m"),
                        new Curve.ByFormula("shell-torque", "-4*pi*mu*B*L", "N m")));
    }

    private static Source rig() {
        return new Source.Reference(
                "rig",
                "rig",
                Source.Kind.MEASUREMENT,
                List.of("rake.csv", "torque-logger.csv"),
                Map.of(),
                List.of(
                        new Curve.Columns(
                                "temperature-outlet",
                                "rake.csv",
                                "radius",
                                "",
                                "temperature",
                                "",
                                ColumnUncertainty.of("uncertainty")),
                        new Curve.WindowMean("rotor-torque", "torque-logger.csv", "Drehmoment", "", "Zeit", 20, 60),
                        new Curve.Columns(
                                "torque-log",
                                "torque-logger.csv",
                                "Zeit",
                                "",
                                "Drehmoment",
                                "",
                                ColumnUncertainty.NONE)));
    }

    private static List<FieldUnit> units() {
        return List.of(
                new FieldUnit("velocity", "m/s", true),
                new FieldUnit("pressure", "Pa", true),
                new FieldUnit("temperature", "K", true),
                new FieldUnit("wallShear", "Pa", true));
    }

    private static List<Quantity> quantities() {
        return List.of(
                new Quantity("swirl", "swirl speed", "velocity", Component.SWIRL, "m/s"),
                new Quantity("axial", "axial speed", "velocity", Component.AXIAL, "m/s"),
                new Quantity("speed", "speed", "velocity", Component.MAGNITUDE, "m/s"),
                new Quantity("temperature", "temperature", "temperature", Component.ALL, "degC"),
                new Quantity("dynamic-pressure", "dynamic pressure", "0.5 * rho * dot(velocity, velocity)", "Pa", ""),
                new Quantity(
                        "gap-reynolds",
                        "gap Reynolds number",
                        "rho * mean(\"axial speed\" over outlet) * 2 * (Ro - Ri) / mu",
                        "",
                        "with the hydraulic diameter of the gap; one number a lane"),
                new Quantity("friction-velocity", "wall friction velocity", "sqrt(norm(wallShear) / rho)", "m/s", ""),
                new Quantity("vorticity", "axial vorticity", "curl(velocity).axial", "1/s", ""),
                new Quantity(
                        "from-mean",
                        "temperature above inlet",
                        "temperature - mean(temperature over inlet)",
                        "delta degC",
                        ""),
                new Quantity(
                        "swirl-error",
                        "swirl above theory",
                        "\"swirl speed\" - \"swirl speed\" of theory",
                        "mm/s",
                        "the theory counts at every place"),
                new Quantity("rho", "rho", "870 \"kg/m3\"", "", "oil at 40 degC, as the demo is made"),
                new Quantity("mu", "mu", "0.10 \"Pa s\"", "", "oil at 40 degC, as the demo is made"),
                new Quantity("Ri", "Ri", "30 \"mm\"", "", "rotor radius"),
                new Quantity("Ro", "Ro", "36 \"mm\"", "", "shell radius"));
    }

    private static Station line(String id, String name, double degrees, double z) {
        double c = Math.cos(Math.toRadians(degrees));
        double s = Math.sin(Math.toRadians(degrees));
        return new Station(
                id,
                name,
                new Line(
                        new Point(Jacket.RI * c, Jacket.RI * s, z),
                        new Point(Jacket.RO * c, Jacket.RO * s, z),
                        new Sampling.Even(201),
                        Abscissa.RADIUS));
    }

    private static List<Station> stations() {
        return List.of(
                line("gap-mid", "Gap at mid-length", 45, 0.06),
                line("gap-inlet", "Gap near inlet", 45, 0.004),
                line("gap-outlet", "Gap at outlet", 45, 0.12),
                new Station("mid", "Mid section", new Section(new Point(0, 0, 0.06), new Point(0, 0, 1), null, null)),
                new Station("along", "Along the gap", new Sweep(Axis.Z, 0.002, 0.118, 30, 0)),
                new Station("mid-gap", "Mid-gap shell", new Shell(Axis.Z, 0.033, null, null, 0)),
                new Station("cone", "Swirl cone", new Sheet("swirl-cone.stl", "mm", null, null, false)),
                new Station("inlet", "inlet", new OnPart("inlet")),
                new Station("outlet", "outlet", new OnPart("outlet")),
                new Station("rotor", "rotor", new OnPart("rotor")),
                new Station("shell", "shell", new OnPart("shell")));
    }

    private static List<Reading> readings() {
        var loads = new Loads("", 0, "wallShear", On.FLUID, On.FLUID);
        var torque = new Moment(loads, Axis.Z);
        var mass = new Flow("velocity", Jacket.RHO, "kg/m3", Carried.NOTHING, Axis.Z);
        var swirl = new Flow("velocity", Jacket.RHO, "kg/m3", Carried.ANGULAR_MOMENTUM, Axis.Z);
        return List.of(
                new Reading("swirl-gap", "Swirl across the gap", "m/s", new ProfileOf("gap-mid", "swirl")),
                new Reading("axial-gap", "Axial speed across the gap", "m/s", new ProfileOf("gap-mid", "axial")),
                new Reading("swirl-inlet", "Swirl near inlet", "m/s", new ProfileOf("gap-inlet", "swirl")),
                new Reading(
                        "temperature-outlet",
                        "Temperature at outlet",
                        "degC",
                        new ProfileOf("gap-outlet", "temperature")),
                new Reading("swirl-along", "Swirl carried along the gap", "mN m", new SweepOf("along", swirl)),
                new Reading("mid-flow", "Mass flow at mid-length", "kg/s", new TallyOf(List.of("mid"), mass)),
                new Reading(
                        "cup-temperature",
                        "Cup mixing temperature at mid-length",
                        "degC",
                        new TallyOf(List.of("mid"), new WeightedMean("temperature", "velocity"))),
                new Reading("mass-flow", "Mass flow", "kg/s", new TallyOf(List.of("outlet"), mass)),
                new Reading("rotor-torque", "Rotor torque", "mN m", new TallyOf(List.of("rotor"), torque)),
                new Reading("shell-torque", "Shell torque", "mN m", new TallyOf(List.of("shell"), torque)),
                new Reading(
                        "inlet-pressure",
                        "Inlet mean pressure",
                        "Pa",
                        new TallyOf(List.of("inlet"), new Mean("pressure"))),
                new Reading(
                        "axial-force",
                        "Axial force on the walls",
                        "N",
                        new TallyOf(
                                List.of("shell", "rotor"),
                                new Force(
                                        new Loads("pressure", 0, "wallShear", On.FLUID, On.WALL), new Point(0, 0, 1)))),
                new Reading(
                        "mass",
                        "Mass",
                        "kg/s",
                        new BalanceOf(
                                List.of(
                                        new Term("Oil in", -1, List.of("inlet"), mass),
                                        new Term("Oil out", -1, List.of("outlet"), mass)),
                                List.of("rotor", "shell"),
                                "positive adds oil to the gap")),
                new Reading(
                        "angular-momentum",
                        "Angular momentum",
                        "mN m",
                        new BalanceOf(
                                List.of(
                                        new Term("Rotor torque", 1, List.of("rotor"), torque),
                                        new Term("Swirl carried in", -1, List.of("inlet"), swirl),
                                        new Term("Shell torque", 1, List.of("shell"), torque),
                                        new Term("Swirl carried out", -1, List.of("outlet"), swirl)),
                                List.of(),
                                "positive adds swirl to the oil")),
                new Reading("torque-log", "Torque logger", "mN m", LOGGER),
                new Reading(
                        "torque-settled", "Settled torque", "mN m", new SettlingOf(LOGGER, 0.6, 0.01, null, "", 0)));
    }

    private static final MonitorOf LOGGER = new MonitorOf("torque", "time", "s");

    private static List<Check> checks() {
        return List.of(
                check("swirl-l2", "swirl-gap", Norm.L2, Scale.RANGE, 0.01, ""),
                check("swirl-linf", "swirl-gap", Norm.LINF, Scale.RANGE, 0.02, ""),
                check("axial-l2", "axial-gap", Norm.L2, Scale.RANGE, 0.01, ""),
                check("inlet-l2", "swirl-inlet", Norm.L2, Scale.RANGE, 0.01, ""),
                check("outlet-temperature", "temperature-outlet", Norm.L2, Scale.ABSOLUTE, 0.3, "rig"),
                check("flow", "mass-flow", Norm.L2, Scale.MEAN, 0.005, ""),
                check("flow-mid", "mid-flow", Norm.L2, Scale.MEAN, 0.005, ""),
                check("torque-rig", "rotor-torque", Norm.L2, Scale.MEAN, 0.01, "rig"),
                check("torque-shell", "shell-torque", Norm.L2, Scale.MEAN, 0.02, ""),
                new Check("mass-closes", "mass", new Closure(0.001, false), List.of("fine")),
                new Check("swirl-closes", "angular-momentum", new Closure(0.01, false), List.of("fine")));
    }

    private static Check check(String id, String reading, Norm norm, Scale scale, double tolerance, String datum) {
        return new Check(id, reading, norm, scale, tolerance, datum, List.of("fine"));
    }
}
