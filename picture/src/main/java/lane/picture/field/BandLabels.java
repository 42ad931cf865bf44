package lane.picture.field;

import java.util.ArrayList;
import java.util.List;
import java.util.function.DoubleFunction;

/** Where the values of the lines between bands are written: on each line, as far from one another as they will go. */
public final class BandLabels {
    private static final int STEP = 3;
    private static final int MARGIN = 30;
    /** Nearer than this two would crowd. */
    private static final double APART = 46;

    private BandLabels() {}

    /** @param text of a value in SI units */
    public static List<Annotations.BandLabel> of(DrawnFrame frame, Look look, DoubleFunction<String> text) {
        int bands = look.style().bands();
        List<Annotations.BandLabel> out = new ArrayList<>();
        if (bands == 0) {
            return out;
        }
        List<List<int[]>> on = new ArrayList<>();
        for (int b = 0; b < bands; b++) {
            on.add(new ArrayList<>());
        }
        int w = frame.width();
        for (int y = MARGIN; y < frame.height() - MARGIN; y += STEP) {
            for (int x = MARGIN; x < w - MARGIN - Annotations.BAR_WIDTH; x++) {
                int at = y * w + x;
                if (frame.surface(at) < 0 || frame.surface(at) != frame.surface(at + 1)) {
                    continue;
                }
                float a = frame.band()[at];
                float c = frame.band()[at + 1];
                if (Float.isNaN(a) || Float.isNaN(c)) {
                    continue;
                }
                int ba = look.band(look.share(a));
                int bc = look.band(look.share(c));
                if (ba != bc && ba >= 0 && bc >= 0 && ba < bands && bc < bands) {
                    on.get(Math.max(ba, bc)).add(new int[] {x, y});
                }
            }
        }
        for (int b = 1; b < bands; b++) {
            int[] best = null;
            double far = APART;
            for (int[] p : on.get(b)) {
                double near = 1e9;
                for (Annotations.BandLabel l : out) {
                    near = Math.min(near, Math.hypot(l.x() - p[0], l.y() - p[1]));
                }
                if (near > far || best == null && out.isEmpty()) {
                    far = near;
                    best = p;
                }
            }
            if (best != null) {
                out.add(new Annotations.BandLabel(text.apply(look.value((double) b / bands)), best[0], best[1]));
            }
        }
        return out;
    }
}
