package lane.reading;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import lane.base.Fault;
import lane.base.LaneException;
import lane.estimate.Estimate;
import lane.evaluation.BoundQuantity;
import lane.evaluation.QuantityTrail;
import lane.evaluation.SamplePoints;
import lane.mesh.Finding;
import lane.mesh.Neighbours;
import lane.mesh.Point;
import lane.provenance.Method;
import lane.provenance.Provenance;
import lane.station.Region;
import lane.station.Station;
import lane.unit.Unit;

/**
 * How much a quantity jumps from cell to cell across faces, or from node to node along edges: where a mesh is too coarse for what it carries.
 *
 * @param stations keys of regions, taken together; a face counts where both of its cells lie in them
 * @param relative what a jump is compared with
 * @param threshold what is counted: jumps above it; in {@code thresholdUnit} where jumps are absolute, else a share
 * @param thresholdUnit SI where blank
 * @param number which of the numbers is the answer
 * @param across whether neighbours are cells or nodes
 */
public record JumpOf(
        List<String> stations,
        String quantity,
        Relative relative,
        double threshold,
        String thresholdUnit,
        Which number,
        Across across)
        implements Ask {
    private static final Method JUMP = new Method("values in the middles of two cells that share a face", 1);
    private static final Method STEP = new Method("values at the two ends of an edge", 1);

    /** What a jump is between. */
    public enum Across {
        FACES("faces between cells"),
        EDGES("edges between nodes");

        private final String word;

        Across(String word) {
            this.word = word;
        }

        public String word() {
            return word;
        }
    }

    public JumpOf(
            List<String> stations,
            String quantity,
            Relative relative,
            double threshold,
            String thresholdUnit,
            Which number) {
        this(stations, quantity, relative, threshold, thresholdUnit, number, Across.FACES);
    }

    private record MeshKey(Object mesh) {}

    /** In studies. */
    public static final class Kind implements AskKind {
        @Override
        public String word() {
            return "jump";
        }

        @Override
        public Class<JumpOf> type() {
            return JumpOf.class;
        }
    }

    /** What a jump is compared with. */
    public enum Relative {
        ABSOLUTE("absolute"),
        MEAN("over the mean of both"),
        SMALLER("over the smaller of both"),
        RANGE("over the range of all");

        private final String word;

        Relative(String word) {
            this.word = word;
        }

        public String word() {
            return word;
        }
    }

    /** One of the numbers. */
    public enum Which {
        GREATEST,
        COUNT,
        SHARE,
        PLACE_X,
        PLACE_Y,
        PLACE_Z,
        LEAST_X,
        GREATEST_X,
        LEAST_Y,
        GREATEST_Y,
        LEAST_Z,
        GREATEST_Z;

        public String word() {
            return name().toLowerCase(Locale.ROOT).replace('_', ' ');
        }
    }

    public JumpOf {
        stations = stations == null ? List.of() : List.copyOf(stations);
        relative = relative == null ? Relative.ABSOLUTE : relative;
        thresholdUnit = thresholdUnit == null ? "" : thresholdUnit;
        number = number == null ? Which.GREATEST : number;
        across = across == null ? Across.FACES : across;
        if (!(threshold >= 0)) {
            throw new LaneException("Jumps have no sign; count those above a threshold that is not negative.");
        }
    }

    @Override
    public Form form() {
        return Form.NUMBER;
    }

    @Override
    public Set<String> quantities() {
        return Set.of(quantity);
    }

    @Override
    public List<String> numbers(String name) {
        List<String> out = new ArrayList<>(List.of(name));
        for (Which w : Which.values()) {
            out.add(name + " " + w.word());
        }
        return out;
    }

    private boolean[] cells(Reading reading, ReadingContext on, List<Station> all) {
        boolean[] in = new boolean[on.run().mesh().cellCount()];
        for (Station s : all) {
            if (!(s.shape() instanceof Region r)) {
                throw new LaneException("Reading \"" + reading.name() + "\" looks at neighbouring cells of regions; \""
                        + s.name() + "\" is none; choose a region.");
            }
            for (int c : on.places().cells(on.run(), r.within().whole(), on.lens())) {
                in[c] = true;
            }
        }
        return in;
    }

    private double jump(double a, double b, double range) {
        double by =
                switch (relative) {
                    case ABSOLUTE -> 1;
                    case MEAN -> Math.abs(a + b) / 2;
                    case SMALLER -> Math.min(Math.abs(a), Math.abs(b));
                    case RANGE -> range;
                };
        double jump = Math.abs(a - b);
        // Nothing over nothing is no jump; something over nothing is one without bounds.
        return jump == 0 ? 0 : jump / by;
    }

    @Override
    public Outcome read(Reading reading, ReadingContext on) {
        List<Station> all = stations.stream().map(s -> on.station(s, reading)).toList();
        if (all.isEmpty()) {
            throw new LaneException("Reading \"" + reading.name() + "\" names no region; choose where it is taken.");
        }
        boolean[] in = cells(reading, on, all);
        BoundQuantity bound =
                BoundQuantity.of(on.run(), on.quantity(quantity), on.lens()).number();
        if (relative == Relative.MEAN || relative == Relative.SMALLER) {
            if (bound.unit().offset() != 0 || bound.type().points() == 1) {
                throw new LaneException(
                        Fault.UNIT,
                        "A share of a temperature depends on where its scale begins; compare jumps with the range, or take a"
                                + " difference from a temperature, such as T - 300 \"K\".");
            }
        }
        boolean edges = across == Across.EDGES;
        double[] value = bound.values(edges ? SamplePoints.nodes(on.run()) : SamplePoints.cells(on.run()))[0];
        Neighbours near = edges
                ? Neighbours.edges(on.run().mesh(), in)
                : on.memo()
                        .of(
                                new MeshKey(on.run().mesh().key()),
                                () -> Neighbours.of(on.run().mesh()));
        if (edges) {
            // Every end of an edge of the region's cells counts.
            in = new boolean[value.length];
            for (int i = 0; i < near.size(); i++) {
                in[near.first()[i]] = true;
                in[near.second()[i]] = true;
            }
        }
        double least = Double.POSITIVE_INFINITY;
        double most = Double.NEGATIVE_INFINITY;
        for (int c = 0; c < in.length; c++) {
            if (in[c] && !Double.isNaN(value[c])) {
                least = Math.min(least, value[c]);
                most = Math.max(most, value[c]);
            }
        }
        boolean absolute = relative == Relative.ABSOLUTE;
        Unit natural = absolute ? bound.unit().forInterval() : Unit.ONE;
        double limit = limit(natural);
        double greatest = Double.NaN;
        int at = -1;
        int count = 0;
        int faces = 0;
        double[] box = {
            Double.NaN, Double.NaN, Double.NaN, Double.NaN, Double.NaN, Double.NaN,
        };
        for (int i = 0; i < near.size(); i++) {
            double a = value[near.first()[i]];
            double b = value[near.second()[i]];
            if (!in[near.first()[i]] || !in[near.second()[i]] || Double.isNaN(a) || Double.isNaN(b)) {
                continue;
            }
            faces++;
            double jump = jump(a, b, most - least);
            if (at < 0 || jump > greatest) {
                greatest = jump;
                at = i;
            }
            if (jump > limit) {
                count++;
                for (int d = 0; d < 3; d++) {
                    double x = near.place()[3 * i + d];
                    box[2 * d] = Double.isNaN(box[2 * d]) ? x : Math.min(box[2 * d], x);
                    box[2 * d + 1] = Double.isNaN(box[2 * d + 1]) ? x : Math.max(box[2 * d + 1], x);
                }
            }
        }
        if (faces == 0) {
            throw new LaneException(
                    Fault.NO_VALUE,
                    edges
                            ? "No edge there has a value at both of its ends, so nothing can jump; choose a larger region."
                            : "No two cells with a value share a face there, so nothing can jump; choose a larger region.");
        }
        Point place = new Point(near.place()[3 * at], near.place()[3 * at + 1], near.place()[3 * at + 2]);
        List<Scalar> named = new ArrayList<>();
        String above = (edges ? "edges" : "faces") + " where the jump is above " + Finding.number(threshold, 6)
                + (absolute && !thresholdUnit.isBlank()
                        ? " " + thresholdUnit
                        : absolute ? " " + natural.si().symbol() : "");
        for (Which w : Which.values()) {
            double number =
                    switch (w) {
                        case GREATEST -> greatest;
                        case COUNT -> count;
                        case SHARE -> count / (double) faces;
                        case PLACE_X -> place.x();
                        case PLACE_Y -> place.y();
                        case PLACE_Z -> place.z();
                        default -> box[w.ordinal() - Which.LEAST_X.ordinal()];
                    };
            Unit unit =
                    switch (w) {
                        case GREATEST -> natural;
                        case COUNT, SHARE -> Unit.ONE;
                        default -> Unit.of("m");
                    };
            Unit shown =
                    w == this.number ? Outcome.shown(reading.unit(), unit, "Reading \"" + reading.name() + "\"") : unit;
            String remark =
                    switch (w) {
                        case GREATEST ->
                            relative.word()
                                    + (edges
                                            ? ", between the ends of an edge"
                                            : ", between the middles of neighbouring cells");
                        case COUNT -> above;
                        case SHARE -> "of " + faces + " " + across.word();
                        case PLACE_X, PLACE_Y, PLACE_Z ->
                            edges ? "middle of the edge with the greatest" : "of the face with the greatest";
                        default -> "box of the " + above;
                    };
            named.add(new Scalar(w.word(), new Estimate(number, shown), remark));
        }
        String where = String.join(" + ", all.stream().map(Station::name).toList());
        String note = "over " + faces + " " + across.word() + " of " + where + ", jumps " + relative.word();
        Map<String, Object> settings =
                new LinkedHashMap<>(Where.of(all, on.places().sheets()).definitions());
        settings.put("note", note);
        Provenance trail = QuantityTrail.of(on.trail(), bound, on.lens())
                .then("station", edges ? STEP : JUMP, "{note}", settings)
                .then("reading", edges ? STEP : JUMP, "{number}", Map.of("number", number.word(), "definition", this));
        return new Several(named, number.ordinal(), List.of(), note, Double.NaN, trail);
    }

    private double limit(Unit natural) {
        if (relative != Relative.ABSOLUTE) {
            return threshold;
        }
        Unit unit =
                thresholdUnit.isBlank() ? natural.si() : Unit.of(thresholdUnit).forInterval();
        if (natural.known() || !thresholdUnit.isBlank()) {
            unit.requireComparable(natural, "The threshold of the jumps");
        }
        return unit.toSi(threshold);
    }
}
