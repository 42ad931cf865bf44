package lane.measure;

import lane.base.Kinds;

/** A kind of measure as studies name it; found as a service. */
public interface MeasureKind extends Kinds.Kind<Measure> {
    Kinds<Measure, MeasureKind> ALL = Kinds.of(MeasureKind.class);
}
