package lane.study;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;
import java.util.function.Predicate;
import lane.base.LaneException;
import lane.reading.Reading;

/** How the work of a study is cut into pieces. */
final class Pieces {
    /** Readings that one piece answers at most: they share the run, and more of them take longer than to open it again. */
    private static final int TOGETHER = 24;

    private Pieces() {}

    /**
     * @param times the stored ones of each lane whose run can be read
     * @param block how many times one piece reads at most
     * @param made whether a reading is made of answers to others, which costs nothing and is no piece
     */
    static List<Piece> of(Study study, Map<String, List<Double>> times, int block, Predicate<Reading> made) {
        if (block < 1) {
            throw new LaneException("A piece reads at least one time; " + block + " are asked for.");
        }
        List<Piece> out = new ArrayList<>();
        times.forEach((lane, stored) -> {
            List<String> now = study.readings().stream()
                    .filter(r -> !r.ask().overTime() && !made.test(r))
                    .map(Reading::id)
                    .toList();
            for (int i = 0; i < now.size(); i += TOGETHER) {
                out.add(new Piece(lane, now.subList(i, Math.min(now.size(), i + TOGETHER)), List.of()));
            }
            // Readings that go over the same times read them together.
            var wanted = new TreeSet<Integer>();
            var readings = new LinkedHashMap<String, Reading>();
            for (Reading r : study.readings()) {
                for (int i : over(r, stored)) {
                    wanted.add(i);
                    readings.put(r.id(), r);
                }
            }
            List<Double> all = wanted.stream().map(stored::get).toList();
            for (int i = 0; i < all.size(); i += block) {
                out.add(new Piece(
                        lane, List.copyOf(readings.keySet()), all.subList(i, Math.min(all.size(), i + block))));
            }
        });
        return out;
    }

    private static int[] over(Reading reading, List<Double> stored) {
        try {
            return reading.ask().atTimes(reading, stored).map(a -> a.times()).orElse(new int[0]);
        } catch (LaneException e) {
            // It says so when it is read.
            return new int[0];
        }
    }
}
