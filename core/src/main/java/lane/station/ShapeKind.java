package lane.station;

import lane.base.Kinds;

/** A kind of station as studies name it; found as a service. */
public interface ShapeKind extends Kinds.Kind<Shape> {
    Kinds<Shape, ShapeKind> ALL = Kinds.of(ShapeKind.class);
}
