package lane.reading;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import lane.base.Fault;
import lane.base.LaneException;
import lane.base.Sum;
import lane.estimate.Estimate;
import lane.evaluation.BoundQuantity;
import lane.evaluation.QuantityTrail;
import lane.evaluation.StoredValues;
import lane.field.Gather;
import lane.provenance.Method;
import lane.provenance.Provenance;
import lane.station.Region;
import lane.station.Station;
import lane.unit.Unit;

/**
 * Where a condition holds: how many nodes or cells, in how many pieces, their size and their share, and the box around them.
 *
 * @param stations regions or surfaces, taken together
 * @param condition key of a quantity that says yes or no; blank for all of them
 * @param number which of the numbers is the answer
 */
public record ExtentOf(List<String> stations, String condition, StoredValues.At at, Which number) implements Ask {
    private static final Method EXTENT = new Method("nodes, or middles of cells, where a condition holds", 1);

    /** In studies. */
    public static final class Kind implements AskKind {
        @Override
        public String word() {
            return "extent";
        }

        @Override
        public Class<ExtentOf> type() {
            return ExtentOf.class;
        }
    }

    /** One of the numbers. */
    public enum Which {
        COUNT,
        PIECES,
        SHARE,
        SIZE,
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

    public ExtentOf {
        stations = stations == null ? List.of() : List.copyOf(stations);
        condition = condition == null ? "" : condition;
        at = at == null ? StoredValues.At.CELLS : at;
        number = number == null ? Which.COUNT : number;
        if (number == Which.SIZE && at == StoredValues.At.NODES) {
            throw new LaneException("Nodes have no size; take cells, or the number of nodes.");
        }
    }

    @Override
    public Form form() {
        return Form.NUMBER;
    }

    @Override
    public Set<String> quantities() {
        return condition.isBlank() ? Set.of() : Set.of(condition);
    }

    @Override
    public List<String> numbers(String name) {
        List<String> out = new ArrayList<>(List.of(name));
        for (Which w : Which.values()) {
            if (w != Which.SIZE || at == StoredValues.At.CELLS) {
                out.add(name + " " + w.word());
            }
        }
        return out;
    }

    @Override
    public boolean inPieces() {
        return true;
    }

    /**
     * What holds, put together.
     *
     * @param all size of all, whether it holds or not
     */
    private record Extent(double count, double size, double all, double[] least, double[] greatest) {
        static Extent of(StoredValues some, StoredValues all) {
            double[] least = {Double.NaN, Double.NaN, Double.NaN};
            double[] greatest = least.clone();
            for (int i = 0; i < some.place().length; i++) {
                reach(least, greatest, i % 3, some.place()[i], some.place()[i]);
            }
            return new Extent(some.value().length, Sum.of(some.size()), Sum.of(all.size()), least, greatest);
        }

        static Extent together(List<Extent> pieces) {
            double[] least = {Double.NaN, Double.NaN, Double.NaN};
            double[] greatest = least.clone();
            for (Extent e : pieces) {
                for (int d = 0; d < 3; d++) {
                    if (!Double.isNaN(e.least[d])) {
                        reach(least, greatest, d, e.least[d], e.greatest[d]);
                    }
                }
            }
            return new Extent(
                    pieces.stream().mapToDouble(Extent::count).sum(),
                    Sum.of(pieces.stream().mapToDouble(Extent::size).toArray()),
                    Sum.of(pieces.stream().mapToDouble(Extent::all).toArray()),
                    least,
                    greatest);
        }

        private static void reach(double[] least, double[] greatest, int d, double from, double to) {
            least[d] = Double.isNaN(least[d]) ? from : Math.min(least[d], from);
            greatest[d] = Double.isNaN(greatest[d]) ? to : Math.max(greatest[d], to);
        }
    }

    @Override
    public Outcome read(Reading reading, ReadingContext on) {
        if (!condition.isBlank()
                && !BoundQuantity.of(on.run(), on.quantity(condition), on.lens())
                        .type()
                        .truth()) {
            throw new LaneException(
                    Fault.FORMULA,
                    "\"" + on.quantity(condition).name()
                            + "\" is a number; an extent is that of a condition, such as T > 300 \"K\".");
        }
        StoredValues some = StoredOver.of(on, reading, stations, at, "", condition);
        StoredValues all = condition.isBlank() ? some : StoredOver.of(on, reading, stations, at, "", "");
        List<Station> where = stations.stream().map(s -> on.station(s, reading)).toList();
        boolean region = where.stream().allMatch(s -> s.shape() instanceof Region);
        Gather gather = on.run().gather();
        if (number == Which.PIECES) {
            gather.needsWhole("What hangs together");
        }
        Extent extent = gather.of("extent", () -> Extent.of(some, all), Extent::together);
        double size = extent.size;
        double[] least = extent.least;
        double[] greatest = extent.greatest;
        boolean cells = at == StoredValues.At.CELLS;
        String of = cells ? region ? "cells" : "faces" : "nodes";
        String box = cells ? "of the middles of the " + of : "of the nodes";
        List<Scalar> named = new ArrayList<>();
        Unit metres = Unit.of("m");
        for (Which w : Which.values()) {
            if (w == Which.SIZE && !cells) {
                continue;
            }
            double value =
                    switch (w) {
                        case COUNT -> extent.count;
                        case PIECES -> gather.whole() ? some.pieces() : Double.NaN;
                        case SHARE -> size / extent.all;
                        case SIZE -> size;
                        case LEAST_X -> least[0];
                        case GREATEST_X -> greatest[0];
                        case LEAST_Y -> least[1];
                        case GREATEST_Y -> greatest[1];
                        case LEAST_Z -> least[2];
                        case GREATEST_Z -> greatest[2];
                    };
            Unit natural =
                    switch (w) {
                        case COUNT, PIECES, SHARE -> Unit.ONE;
                        case SIZE -> Unit.of(region ? "m3" : "m2");
                        default -> metres;
                    };
            String remark =
                    switch (w) {
                        case COUNT -> of + " where it holds";
                        case PIECES -> "that hang together by nodes";
                        case SHARE -> cells ? "by size, one value a cell" : "of the number of nodes";
                        case SIZE -> "of the " + of + " where it holds, each whole";
                        default -> box;
                    };
            Unit shown = w == number
                    ? Outcome.shown(reading.unit(), natural, "Reading \"" + reading.name() + "\"")
                    : natural;
            named.add(new Scalar(w.word(), new Estimate(value, shown), remark));
        }
        String note = (condition.isBlank()
                        ? "all "
                        : "where " + on.quantity(condition).name() + ", ") + of + " of "
                + String.join(" + ", where.stream().map(Station::name).toList());
        Provenance trail = on.trail();
        if (!condition.isBlank()) {
            trail = QuantityTrail.of(trail, BoundQuantity.of(on.run(), on.quantity(condition), on.lens()), on.lens());
        }
        Where stood = Where.of(where, on.places().sheets());
        Map<String, Object> settings = new LinkedHashMap<>(stood.definitions());
        settings.put("note", note);
        trail = trail.reading(stood.files())
                .then("station", EXTENT, "{note}", settings)
                .then("reading", EXTENT, "{number}", Map.of("number", number.word(), "definition", this));
        int answer = 0;
        for (int i = 0; i < named.size(); i++) {
            answer = named.get(i).what().equals(number.word()) ? i : answer;
        }
        return new Several(named, answer, List.of(), note, Double.NaN, trail);
    }
}
