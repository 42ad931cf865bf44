package lane.station;

import lane.mesh.Point;
import org.jspecify.annotations.Nullable;

/**
 * Where to look: the same place in every lane.
 *
 * @param id stable key within the study
 * @param name for people, and in formulas
 * @param frame key of the frame that the shape's numbers are in; blank for space
 * @param shape the place itself
 */
public record Station(String id, String name, String frame, Shape shape) {
    public Station {
        frame = frame == null ? "" : frame;
    }

    /** A station that stands in space. */
    public Station(String id, String name, Shape shape) {
        this(id, name, "", shape);
    }

    /** The kind, for people. */
    public String word() {
        return shape.word();
    }

    public Station named(String other) {
        return new Station(id, other, frame, shape);
    }

    /** The same elsewhere in the list. */
    public Station keyed(String key) {
        return new Station(key, name, frame, shape);
    }

    /** The same numbers in another frame. */
    public Station in(String otherFrame) {
        return new Station(id, name, otherFrame, shape);
    }

    /** The same moved by a distance; null where moving means nothing. */
    public @Nullable Station moved(Point by) {
        Shape to = shape.moved(by);
        return to == null ? null : shaped(to);
    }

    /** The place alone: equal for stations at one place. */
    public Station geometry() {
        return new Station("", "", "", shape);
    }

    public Station shaped(Shape other) {
        return new Station(id, name, frame, other);
    }
}
