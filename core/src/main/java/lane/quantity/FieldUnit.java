package lane.quantity;

/**
 * The unit in which runs store a field, stated once for the study because many files do not say.
 *
 * @param field name of the field
 * @param unit its symbol
 * @param stated true when somebody confirmed it, false while it is a guess
 */
public record FieldUnit(String field, String unit, boolean stated) {
    public FieldUnit {
        lane.unit.Unit.of(unit);
    }

    /**
     * A guess from the trade's usual names, such as {@code velocity} or {@code p}: blank when nothing fits. A unit in
     * square or round brackets at the end of the name is taken as it stands.
     */
    public static String guess(String name) {
        int open = Math.max(name.lastIndexOf('['), name.lastIndexOf('('));
        if (open > 0 && (name.endsWith("]") || name.endsWith(")"))) {
            String inside = name.substring(open + 1, name.length() - 1);
            try {
                lane.unit.Unit.of(inside);
                return inside;
            } catch (lane.base.LaneException e) {
                return "";
            }
        }
        return usual(name);
    }

    /** Whether a unit is but taken from a usual name, and stands nowhere. */
    public static boolean byName(String name) {
        return !usual(name).isBlank() && !name.endsWith("]") && !name.endsWith(")");
    }

    private static String usual(String name) {
        String n = name.toLowerCase(java.util.Locale.ROOT).replaceAll("[^a-z]", "");
        return switch (n) {
            case "velocity", "u", "vel", "speed", "swirl", "swirlspeed", "axialspeed" -> "m/s";
            case "pressure", "p", "wallshear", "wallshearstress", "tau", "tauw", "stress", "shearstress" -> "Pa";
            case "temperature", "t", "temp" -> "K";
            case "density", "rho" -> "kg/m3";
            case "displacement" -> "m";
            case "force" -> "N";
            case "heatflux", "wallheatflux" -> "W/m2";
            case "region", "part", "regionid", "partid", "id" -> "1";
            default -> "";
        };
    }
}
