package lane.desk;

import java.util.ArrayDeque;
import java.util.Collections;
import java.util.Deque;
import java.util.List;
import java.util.Optional;
import lane.base.Same;
import lane.picture.chart.ReadingChart;
import org.jspecify.annotations.Nullable;

/** Compares long curves with their datum behind the window, each set once as long as it is looked at. Called on the interface thread. */
final class CompareDesk {
    private static final int KEPT = 4;

    private final Background background;
    private final Deque<Object> looked = new ArrayDeque<>();

    private record Curves(List<Same> curves, Same against) {}

    /** @param done told on the interface thread when something new is known */
    CompareDesk(Runnable done) {
        background = new Background("differences", done);
    }

    /** A chart with its differences; null while they are being found. */
    ReadingChart.@Nullable Compared of(ReadingChart chart) {
        var key = new Curves(
                chart.curves().stream().map(c -> Same.as(c.profile())).toList(),
                Same.as(java.util.Objects.requireNonNull(chart.against())));
        if (looked.remove(key) || looked.size() < KEPT) {
            looked.addFirst(key);
        } else {
            background.forget(looked.removeLast());
            looked.addFirst(key);
        }
        Background.Made made = background.of(key, chart::compared);
        if (made == null) {
            return null;
        }
        // What could not be compared at all, as for want of memory, keeps nobody waiting.
        return made.thing() instanceof ReadingChart.Compared found
                ? found.of(chart)
                : new ReadingChart.Compared(
                        chart, Collections.nCopies(chart.curves().size(), Optional.empty()));
    }

    void stop() {
        background.stop();
    }
}
