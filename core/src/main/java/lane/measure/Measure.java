package lane.measure;

import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;
import lane.base.Fault;
import lane.base.LaneException;
import lane.base.Plain;
import lane.evaluation.EvaluationContext;
import lane.evaluation.PathIntegral;
import lane.evaluation.RegionIntegral;
import lane.evaluation.SurfaceIntegral;
import lane.field.Run;
import lane.mesh.Point;
import lane.provenance.Method;

/**
 * What one number is taken of a station. Each kind is one class: what it needs, its sign convention, and how it is computed
 * over surfaces, regions and paths; where it has no meaning it says so. The kinds there are stand in the services file of
 * {@link MeasureKind}.
 */
public interface Measure {
    /** In a few words, with the keys of quantities. */
    String word();

    /** Which way is positive; empty where a sign has no meaning. */
    default String sign() {
        return "";
    }

    /** Keys of the quantities it needs. */
    default Set<String> quantities() {
        return Set.of();
    }

    /** How it is computed, for the trail; the version is raised when the same input may give another number. */
    default Method method() {
        return new Method(Plain.words(getClass()), 1);
    }

    /** What it takes for the values of its quantity; empty where that is no question. */
    default Optional<By> by() {
        return Optional.empty();
    }

    /** The same number of other values; empty where there is no such. */
    default Optional<Measure> by(By values) {
        return by().equals(Optional.of(values)) ? Optional.of(this) : Optional.empty();
    }

    /** Whether quantities are looked at where they are stored, and not at quadrature points. */
    default boolean asStored() {
        return false;
    }

    /** Whether it is a number along a direction, or of a vector, so that there are such numbers along x, y and z. */
    default boolean directed() {
        return false;
    }

    /**
     * The same along an axis of space.
     *
     * @param d 0, 1 or 2 for x, y or z
     * @param part gives the key of a vector's component along it
     */
    default Measure component(int d, UnaryOperator<String> part) {
        throw new LaneException(Plain.one(word()) + " has no components.");
    }

    /** The direction in space that it is positive along, or turns about by the right-hand rule; empty for others. */
    default Optional<Point> along() {
        return Optional.empty();
    }

    /** The same number with the other sign, where its sign is that of a direction; empty for others. */
    default Optional<Measure> flipped() {
        return Optional.empty();
    }

    /** Whether it belongs to a lane as a whole and is taken over no station. */
    default boolean placeless() {
        return false;
    }

    /** Of a lane as a whole. */
    default Measured of(Run run, EvaluationContext lens) {
        throw new LaneException(Fault.MISSING, Plain.one(word()) + " is taken over a station; choose where.");
    }

    /** @throws LaneException when it is not taken over surfaces, or a field is missing or has the wrong dimension */
    default Measured over(SurfaceIntegral surface) {
        throw new LaneException(
                Plain.one(word()) + " is not taken over surfaces; over those take the area, a mean, an integral,"
                        + " an extreme, a flow, a force or a moment.");
    }

    default Measured within(RegionIntegral region) {
        throw new LaneException(Plain.one(word())
                + " is taken over surfaces; over a region take its volume, a mean, an integral or an extreme.");
    }

    default Measured along(PathIntegral path) {
        throw new LaneException(Plain.one(word())
                + " is taken over surfaces; over a path take its length, a mean, an integral or an extreme.");
    }
}
