package lane.estimate;

import java.util.Collections;
import java.util.EnumMap;
import java.util.Map;
import lane.base.LaneException;
import org.hipparchus.distribution.continuous.TDistribution;

/**
 * How well a number is known: standard uncertainties by where they come from, in SI units, and the factor that makes a
 * half-width of about 95 % of them. Components are taken as independent and combine by the root of their squares (ISO/IEC
 * Guide 98-3).
 *
 * @param standard at least one component, or none where nothing is stated
 * @param k coverage factor of the half-width
 * @param freedom degrees of freedom of the combined standard uncertainty; infinite where it is taken as known
 */
public record Uncertainty(Map<Source, Double> standard, double k, double freedom) {
    /** Where a component comes from. */
    public enum Source {
        /** Meshes, time steps, iterations. */
        NUMERICAL("numerical"),
        /** What a run was given: properties, boundary values. */
        INPUT("input"),
        /** A measurement, as whoever measured it says. */
        MEASURED("measured"),
        /** The scatter of what a mean was taken of. */
        SAMPLING("sampling"),
        /** The rule that an integral was taken by, or the spacing of samples. */
        QUADRATURE("quadrature");

        private final String word;

        Source(String word) {
            this.word = word;
        }

        public String word() {
            return word;
        }
    }

    /** The factor of about 95 % where the standard uncertainty itself is taken as known. */
    public static final double USUAL = 2;

    public static final Uncertainty NONE = new Uncertainty(Map.of(), USUAL, Double.POSITIVE_INFINITY);

    public Uncertainty {
        var own = new EnumMap<Source, Double>(Source.class);
        own.putAll(standard);
        standard = Collections.unmodifiableMap(own);
        if (!(k > 0) || !(freedom > 0)) {
            throw new LaneException("An uncertainty with k = " + k + " and " + freedom
                    + " degrees of freedom is none; give positive numbers.");
        }
    }

    /** One component from a half-width that was stated with the usual factor; none for 0 or NaN. */
    public static Uncertainty ofHalf(Source source, double half) {
        return half > 0 ? new Uncertainty(Map.of(source, half / USUAL), USUAL, Double.POSITIVE_INFINITY) : NONE;
    }

    /** One component with its degrees of freedom; the factor is that of Student's distribution. None for 0 or NaN. */
    public static Uncertainty ofStandard(Source source, double standard, double freedom) {
        return standard > 0 ? new Uncertainty(Map.of(source, standard), factor(freedom), freedom) : NONE;
    }

    /** Coverage factor of 95 %: Student's t for so many degrees of freedom, {@value #USUAL} for infinitely many. */
    public static double factor(double freedom) {
        return Double.isInfinite(freedom) ? USUAL : new TDistribution(freedom).inverseCumulativeProbability(0.975);
    }

    /** Whether a component besides that of the rule of integration is known: of that alone no number is sure. */
    public boolean stated() {
        return standard.keySet().stream().anyMatch(s -> s != Source.QUADRATURE);
    }

    /** Whether there is any component. */
    public boolean known() {
        return !standard.isEmpty();
    }

    /** All components together; NaN where nothing is stated. */
    public double combined() {
        double sum = Double.NaN;
        for (double u : standard.values()) {
            sum = Double.isNaN(sum) ? u : Math.hypot(sum, u);
        }
        return sum;
    }

    /** The half-width; NaN where nothing is known. */
    public double half() {
        return k * combined();
    }

    /** The half-width as it stands behind a number; NaN where no more is known than how well it was integrated. */
    public double told() {
        return stated() ? half() : Double.NaN;
    }

    /** The half-width that verdicts count with; 0 where nothing is known. */
    public double counted() {
        return known() ? half() : 0;
    }

    /**
     * That of a sum or difference of two independent numbers. Degrees of freedom after Welch and Satterthwaite, the factor
     * from these.
     */
    public Uncertainty and(Uncertainty other) {
        if (!known() || !other.known()) {
            return known() ? this : other;
        }
        var both = new EnumMap<Source, Double>(Source.class);
        both.putAll(standard);
        other.standard.forEach((source, u) -> both.merge(source, u, Math::hypot));
        double a = combined();
        double b = other.combined();
        double share = Math.pow(a, 4) / freedom + Math.pow(b, 4) / other.freedom;
        double together = share == 0 ? Double.POSITIVE_INFINITY : Math.pow(Math.hypot(a, b), 4) / share;
        return new Uncertainty(both, factor(together), together);
    }

    /** That of the number times a constant. */
    public Uncertainty times(double factor) {
        var scaled = new EnumMap<Source, Double>(Source.class);
        standard.forEach((source, u) -> scaled.put(source, Math.abs(factor) * u));
        return new Uncertainty(scaled, k, freedom);
    }
}
