package lane.station;

import java.util.List;
import java.util.Set;
import java.util.function.UnaryOperator;
import lane.base.Fault;
import lane.base.LaneException;
import lane.base.Work;
import lane.cut.Cut;
import lane.field.Part;
import lane.field.Run;
import lane.mesh.Axis;
import lane.mesh.CellLocator;
import lane.mesh.Point;
import org.jspecify.annotations.Nullable;

/**
 * The place of a station, in metres and degrees. Each kind is one class; what can be read on it follows from which of the
 * interfaces here it is. The kinds there are stand in the services file of {@link ShapeKind}.
 */
public interface Shape {
    /** The kind, for people. */
    String word();

    /** The same moved by a distance; null where moving means nothing. */
    default @Nullable Shape moved(Point by) {
        return null;
    }

    /** The same as it stands in space, its own numbers being those of a frame. */
    Shape through(Axis frame);

    /** The same with the path of its file, if it has one, as a function gives it. */
    default Shape withFiles(UnaryOperator<String> path) {
        return this;
    }

    /** Whether what of it lies in the pieces of a run makes up what lies in the run. */
    default boolean inPieces() {
        return false;
    }

    /** Key of a quantity that it depends on; blank for none. */
    default String shapedBy() {
        return "";
    }

    /** What curves are read on: along it, around it, or one number a place. */
    interface Curved extends Shape {
        /** What its curves are drawn against. */
        CurveAxis drawn();

        /**
         * Places where a theory is computed that needs no run.
         *
         * @param axis the study's
         * @throws lane.base.LaneException where only a run knows its extent
         */
        CurveAxis.Samples samples(Axis axis);

        /**
         * Finds places again on it; null where that is not possible.
         *
         * @param axis the study's
         */
        default @Nullable Locus locus(Axis axis) {
            return null;
        }
    }

    /** What is resolved to samples in cells. */
    interface Sampled extends Curved {
        /**
         * Its samples on a mesh.
         *
         * @param turned axis of a mesh that lies in its half plane of angle zero and stands for the full turn; null for
         *     one that stands for itself
         */
        Placement place(CellLocator locator, @Nullable Axis turned, Work work);

        /**
         * The abscissas of its samples as placed.
         *
         * @param axis the study's
         */
        double[] abscissas(Placement placed, Axis axis);

        /** Metres that its samples stand for together; NaN where they are points. */
        double length();
    }

    /** A curve in space that is known by itself, without a run. */
    interface Path extends Sampled {
        Sampling sampling();

        /** Where it is sampled at the faces of cells, its samples are as many as a run gives. */
        @Override
        default boolean inPieces() {
            return !(sampling() instanceof Sampling.CellExact);
        }

        Abscissa abscissa();

        /** The corners between which it is straight, for an arc between which it bends by at most a degree. */
        List<Point> corners();

        Path sampled(Sampling other, Abscissa against);

        /** The place at a share of its length. */
        default Point at(double share) {
            return PathSamples.onCorners(corners(), share, share * length());
        }

        /** How far along a place lies; NaN where it is not on it. */
        default double along(double x, double y, double z) {
            return Locus.onLines(corners(), length(), new Point(x, y, z));
        }

        @Override
        default CurveAxis drawn() {
            return new CurveAxis(abscissa().word(), abscissa().unit());
        }

        @Override
        default CurveAxis.Samples samples(Axis axis) {
            PathSamples s = PathSamples.of(this);
            return new CurveAxis.Samples(s.xyz(), s.arc(), abscissa().of(s.arc(), length(), s.xyz(), axis));
        }

        @Override
        default Locus locus(Axis axis) {
            return new Locus.OnPath(this, axis);
        }

        @Override
        default Placement place(CellLocator locator, @Nullable Axis turned, Work work) {
            return Placer.path(locator, this, turned, work);
        }

        @Override
        default double[] abscissas(Placement placed, Axis axis) {
            return abscissa().of(placed.arc(), length(), placed.xyz(), axis);
        }
    }

    /** A surface, or of a plane run a curve, that quantities are integrated over. */
    interface Surface extends Shape {
        /**
         * The parts behind it in a run: the run's own, or one that is cut out.
         *
         * @param fields names of fields whose values at the surface's own nodes are wanted
         * @throws lane.base.LaneException when nothing of it is in the run
         */
        List<Part> parts(Run run, Resolver on, Set<String> fields);
    }

    /** A surface that is cut out of a run. */
    interface Cutting extends Surface {
        /** What is cut out; empty where it lies outside. */
        Cut cut(Run run, Resolver on);

        /** Whether its values are those within the cells that it passes, and none of its own nodes. */
        default boolean within() {
            return false;
        }

        @Override
        default List<Part> parts(Run run, Resolver on, Set<String> fields) {
            Cut cut = on.cut(run, this);
            if (cut.empty() && run.gather().whole()) {
                throw new LaneException(
                        Fault.OUTSIDE, "The " + word() + " \"" + on.name() + "\" lies outside this run; move it.");
            }
            return List.of(on.part(run, cut, within() ? Set.of() : fields));
        }
    }
}
