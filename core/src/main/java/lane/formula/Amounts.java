package lane.formula;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import lane.base.LaneException;
import lane.unit.Unit;

/** Several numbers typed at once: {@code 0, 45, 90}, {@code 0; 1.5 "in"} or {@code 0 to 345 step 15}. */
public final class Amounts {
    private static final int MOST = 100_000;
    private static final Pattern STEPS = Pattern.compile("(?s)(.+?)\\s+to\\s+(.+?)\\s+step\\s+(.+)");

    private Amounts() {}

    /**
     * The numbers in a unit, see {@link Amount#of}; parted by semicolons, by commas, or by blanks where all are plain numbers.
     *
     * @throws LaneException naming the piece that cannot be read
     */
    public static List<Double> of(String text, Unit in) {
        List<Double> out = new ArrayList<>();
        for (String piece : pieces(text.strip())) {
            Matcher steps = STEPS.matcher(piece);
            if (steps.matches()) {
                out.addAll(steps(
                        Amount.of(steps.group(1), in), Amount.of(steps.group(2), in), Amount.of(steps.group(3), in)));
            } else if (!piece.isBlank()) {
                out.add(Amount.of(piece, in));
            }
        }
        return List.copyOf(out);
    }

    private static List<String> pieces(String text) {
        if (text.contains(";")) {
            return List.of(text.split(";"));
        }
        if (text.contains(",")) {
            return List.of(text.split(","));
        }
        String[] words = text.split("\\s+");
        boolean plain = Arrays.stream(words).allMatch(w -> w.matches("[-+.\\deE]+"));
        return plain ? List.of(words) : List.of(text);
    }

    private static List<Double> steps(double from, double to, double step) {
        double n = (to - from) / step;
        if (!(n >= 0) || n > MOST) {
            throw new LaneException("From " + from + " to " + to + " in steps of " + step
                    + " is no list of numbers; give a step that leads there.");
        }
        List<Double> out = new ArrayList<>();
        // What ends a hair's breadth before the last number by round-off has it all the same.
        for (int i = 0; i <= Math.floor(n + 1e-9); i++) {
            out.add(from + i * step);
        }
        return out;
    }
}
