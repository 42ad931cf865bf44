package lane.measure;

import java.util.Locale;
import java.util.Map;
import lane.mesh.Point;
import lane.unit.Unit;

/**
 * What a measure found.
 *
 * @param value in SI units
 * @param natural the unit that it is shown in unless another is stated
 * @param pieces parts of it apart, in SI units; their sum is the value
 * @param sign which way is positive here; empty where a sign has no meaning
 * @param place where it is or what it lacks, to stand behind the sentence; empty for nothing
 */
public record Measured(double value, Unit natural, Map<String, Double> pieces, String sign, String place) {
    Measured(double value, Unit natural) {
        this(value, natural, Map.of(), "", "");
    }

    public Measured signed(String words) {
        return new Measured(value, natural, pieces, words, place);
    }

    /** The same with more words behind its sentence. */
    Measured also(String words) {
        return new Measured(value, natural, pieces, sign, place + words);
    }

    static Measured at(double value, Unit natural, Point p) {
        String where = String.format(Locale.ROOT, " at (%.5g, %.5g, %.5g) m", p.x(), p.y(), p.z());
        return new Measured(value, natural, Map.of(), "", where);
    }
}
