package lane.quantity;

import java.util.List;
import java.util.Map;
import lane.formula.Printer;

/** Ready quantities to take and change. Names in braces stand for fields of a kind, which differ from file to file. */
public final class Catalogue {
    /**
     * An entry.
     *
     * @param constant whether it is a constant of nature, whose source stands in the note
     */
    public record Entry(String name, String formula, String unit, String note, boolean constant) {
        /**
         * As a quantity.
         *
         * @param fields name of a field by its kind; kinds without one keep their own name
         */
        public Quantity take(String id, Map<String, String> fields) {
            String text = formula;
            for (String kind : KINDS) {
                text = text.replace("{" + kind + "}", Printer.name(fields.getOrDefault(kind, kind)));
            }
            return new Quantity(id, name, text, unit, note);
        }
    }

    /** Kinds of fields that formulas stand on. */
    public static final List<String> KINDS = List.of(
            "velocity",
            "pressure",
            "temperature",
            "wall shear",
            "density",
            "stress",
            "heat flux",
            "turbulence energy",
            "dissipation");

    private static final List<Entry> ALL = List.of(
            entry("speed", "norm({velocity})", "", "magnitude of the velocity"),
            entry(
                    "dynamic pressure",
                    "0.5 * 870 \"kg/m3\" * dot({velocity}, {velocity})",
                    "Pa",
                    "put the density of the fluid"),
            entry(
                    "total pressure",
                    "{pressure} + 0.5 * 870 \"kg/m3\" * dot({velocity}, {velocity})",
                    "Pa",
                    "incompressible; put the density of the fluid"),
            entry(
                    "pressure coefficient",
                    "({pressure} - 0 \"Pa\") / (0.5 * 870 \"kg/m3\" * (1 \"m/s\") ^ 2)",
                    "",
                    "put reference pressure, density and speed"),
            entry(
                    "Reynolds number",
                    "870 \"kg/m3\" * norm({velocity}) * 6 \"mm\" / 0.1 \"Pa s\"",
                    "",
                    "put density, length and viscosity"),
            entry(
                    "Mach number",
                    "norm({velocity}) / sqrt(1.4 * 287.05 \"J/(kg K)\" * {temperature})",
                    "",
                    "ideal gas; put its ratio of heat capacities and its gas constant"),
            entry("vorticity", "curl({velocity})", "1/s", ""),
            entry(
                    "wall friction velocity",
                    "sqrt(norm({wall shear}) / 870 \"kg/m3\")",
                    "m/s",
                    "put the density of the fluid"),
            entry(
                    "turbulence length scale",
                    "0.09 ^ 0.75 * {turbulence energy} ^ 1.5 / {dissipation}",
                    "mm",
                    "from turbulence energy and its dissipation"),
            entry("equivalent stress", "equivalent({stress})", "MPa", "root of 3/2 deviator : deviator"),
            entry("greatest principal stress", "principal({stress}, 1)", "MPa", ""),
            entry(
                    "conductivity from flux and gradient",
                    "-{heat flux}.radial / grad({temperature}).radial",
                    "W/(m K)",
                    "along the radius"),
            new Entry("standard gravity", "9.80665 \"m/s2\"", "", "3rd CGPM, 1901, exact", true),
            new Entry("molar gas constant", "8.31446261815324 \"J/(mol K)\"", "", "CODATA 2018, exact", true),
            new Entry("Stefan-Boltzmann constant", "5.670374419e-8 \"W/(m2 K4)\"", "", "CODATA 2018, exact", true),
            new Entry("speed of light", "299792458 \"m/s\"", "", "17th CGPM, 1983, exact", true));

    private Catalogue() {}

    private static Entry entry(String name, String formula, String unit, String note) {
        return new Entry(name, formula, unit, note, false);
    }

    public static List<Entry> all() {
        return ALL;
    }
}
