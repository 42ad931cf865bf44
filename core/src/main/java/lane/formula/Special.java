package lane.formula;

import org.hipparchus.special.Erf;
import org.hipparchus.special.Gamma;

/** Special functions of the library. */
final class Special {
    private Special() {}

    static double erf(double x) {
        return Double.isNaN(x) ? Double.NaN : Erf.erf(x);
    }

    static double gamma(double x) {
        return Double.isNaN(x) ? Double.NaN : Gamma.gamma(x);
    }
}
