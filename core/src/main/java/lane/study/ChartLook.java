package lane.study;

import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.UnaryOperator;
import lane.base.LaneException;
import org.jspecify.annotations.Nullable;

/**
 * How the chart of a reading is drawn, where somebody chose it. It changes no number.
 *
 * @param reading its key
 * @param x and {@code y}: the axes
 * @param strip what stands beneath the curves
 * @param text how large words are
 * @param legend where its upper left corner is, as shares of the plot from its upper left; null beside or above the chart
 * @param notes words at places of the chart
 * @param lanes how single lanes are drawn, by key
 * @param below keys of readings whose curves stand in panels beneath, on the same abscissa
 */
public record ChartLook(
        String reading,
        AxisLook x,
        AxisLook y,
        Strip strip,
        TextSize text,
        @Nullable Spot legend,
        List<Note> notes,
        Map<String, LaneLook> lanes,
        List<String> below) {
    /** How values lie along an axis. */
    public enum Scale {
        LINEAR("linear"),
        LOG("logarithmic"),
        SHARE("normalised");

        private final String word;

        Scale(String word) {
            this.word = word;
        }

        public String word() {
            return word;
        }
    }

    /** What is made of a lane and the datum. */
    public enum Strip {
        DIFFERENCE("difference"),
        RATIO("ratio"),
        ERROR("error in %"),
        NONE("none");

        private final String word;

        Strip(String word) {
            this.word = word;
        }

        public String word() {
            return word;
        }
    }

    /** How large words are, beside lines and markers. */
    public enum TextSize {
        SCREEN("screen", 1),
        PAGE("page", 1.3),
        SLIDE("slide", 1.8);

        private final String word;
        private final double factor;

        TextSize(String word, double factor) {
            this.word = word;
            this.factor = factor;
        }

        public String word() {
            return word;
        }

        public double factor() {
            return factor;
        }
    }

    /**
     * An axis.
     *
     * @param from and {@code to}: its ends in the unit shown; null as the curves need
     * @param shared whether it reaches as far as those of all charts in the same unit
     * @param title blank for the usual one
     * @param unit blank for the usual one
     */
    public record AxisLook(
            Scale scale,
            boolean reversed,
            @Nullable Double from,
            @Nullable Double to,
            boolean shared,
            String title,
            String unit) {
        public static final AxisLook USUAL = new AxisLook(Scale.LINEAR, false, null, null, false, "", "");

        public AxisLook {
            scale = scale == null ? Scale.LINEAR : scale;
            title = title == null ? "" : title;
            unit = unit == null ? "" : unit;
            lane.unit.Unit.of(unit);
            if (from != null && to != null && !(from < to)) {
                throw new LaneException("An axis from " + from + " to " + to
                        + " has no length; give the lesser end first" + " (an axis can be reversed).");
            }
            if (scale == Scale.LOG && (from != null && from <= 0 || to != null && to <= 0)) {
                throw new LaneException("A logarithmic axis lies above zero; give ends above 0.");
            }
        }

        public AxisLook by(Scale other) {
            boolean keep = (scale == Scale.SHARE) == (other == Scale.SHARE)
                    && !(other == Scale.LOG && (from != null && from <= 0 || to != null && to <= 0));
            return new AxisLook(other, reversed, keep ? from : null, keep ? to : null, shared, title, unit);
        }

        public AxisLook reversed(boolean other) {
            return new AxisLook(scale, other, from, to, shared, title, unit);
        }

        public AxisLook between(@Nullable Double a, @Nullable Double b) {
            return new AxisLook(scale, reversed, a, b, shared, title, unit);
        }

        public AxisLook sharing(boolean other) {
            return new AxisLook(scale, reversed, from, to, other, title, unit);
        }

        public AxisLook titled(String other) {
            return new AxisLook(scale, reversed, from, to, shared, other, unit);
        }

        public AxisLook in(String other) {
            return new AxisLook(scale, reversed, null, null, shared, title, other);
        }
    }

    /** A place as shares from the upper left. */
    public record Spot(double x, double y) {}

    /** Words at a place, in SI units. */
    public record Note(double x, double y, String text) {
        public Note {
            if (text == null || text.isBlank()) {
                throw new LaneException("A note in a chart needs words.");
            }
        }
    }

    /** How a lane's curve is drawn; what is blank or 0 is as usual. */
    public record LaneLook(String colour, @Nullable Dash dash, double width) {
        public LaneLook {
            colour = colour == null ? "" : colour;
            if (!colour.isBlank() && !colour.matches("#[0-9a-fA-F]{6}")) {
                throw new LaneException("The colour \"" + colour + "\" is not understood; write it like #1f6f8b.");
            }
            if (!(width >= 0 && width <= 20)) {
                throw new LaneException("A line is up to 20 wide; " + width + " is not.");
            }
        }
    }

    /** Pieces of a line. */
    public enum Dash {
        SOLID("solid"),
        DASHED("dashed"),
        DOTTED("dotted"),
        LONG("long dashes");

        private final String word;

        Dash(String word) {
            this.word = word;
        }

        public String word() {
            return word;
        }
    }

    public ChartLook {
        x = x == null ? AxisLook.USUAL : x;
        y = y == null ? AxisLook.USUAL : y;
        strip = strip == null ? Strip.DIFFERENCE : strip;
        text = text == null ? TextSize.SCREEN : text;
        notes = notes == null ? List.of() : List.copyOf(notes);
        lanes = lanes == null ? Map.of() : Collections.unmodifiableMap(new LinkedHashMap<>(lanes));
        below = below == null ? List.of() : List.copyOf(below);
    }

    /** As usual. */
    public static ChartLook of(String reading) {
        return new ChartLook(
                reading,
                AxisLook.USUAL,
                AxisLook.USUAL,
                Strip.DIFFERENCE,
                TextSize.SCREEN,
                null,
                List.of(),
                Map.of(),
                List.of());
    }

    public ChartLook x(UnaryOperator<AxisLook> edit) {
        return new ChartLook(reading, edit.apply(x), y, strip, text, legend, notes, lanes, below);
    }

    public ChartLook y(UnaryOperator<AxisLook> edit) {
        return new ChartLook(reading, x, edit.apply(y), strip, text, legend, notes, lanes, below);
    }

    public ChartLook with(Strip other) {
        return new ChartLook(reading, x, y, other, text, legend, notes, lanes, below);
    }

    public ChartLook with(TextSize other) {
        return new ChartLook(reading, x, y, strip, other, legend, notes, lanes, below);
    }

    public ChartLook legendAt(@Nullable Spot other) {
        return new ChartLook(reading, x, y, strip, text, other, notes, lanes, below);
    }

    public ChartLook withNotes(List<Note> others) {
        return new ChartLook(reading, x, y, strip, text, legend, others, lanes, below);
    }

    public ChartLook lane(String key, LaneLook other) {
        var next = new LinkedHashMap<>(lanes);
        next.put(key, other);
        return new ChartLook(reading, x, y, strip, text, legend, notes, next, below);
    }

    public ChartLook below(List<String> others) {
        return new ChartLook(reading, x, y, strip, text, legend, notes, lanes, others);
    }
}
