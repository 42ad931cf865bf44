package lane.station;

import java.util.function.UnaryOperator;
import lane.base.LaneException;
import lane.cut.Cut;
import lane.cut.LaidSheet;
import lane.field.Run;
import lane.mesh.Axis;
import lane.mesh.Mesh;
import lane.mesh.Point;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/**
 * A surface from a file.
 *
 * @param file beside the study
 * @param length unit of the file's coordinates
 * @param by how far it is moved
 * @param turned about x, then y, then z through the file's origin, before it is moved, in degrees
 * @param sampled whether values are taken at its own nodes; else it is cut where it passes from cell to cell
 * @param in the frame that all this is in; null for none
 */
public record Sheet(
        String file,
        String length,
        Point by,
        Point turned,
        boolean sampled,
        @Nullable Axis in) implements Shape.Cutting {
    /** In studies. */
    public static final class Kind implements ShapeKind {
        @Override
        public String word() {
            return "sheet";
        }

        @Override
        public Class<Sheet> type() {
            return Sheet.class;
        }
    }

    public Sheet {
        by = by == null ? new Point(0, 0, 0) : by;
        turned = turned == null ? new Point(0, 0, 0) : turned;
        if (!lane.unit.Unit.of(length).comparable(lane.unit.Unit.of("m"))) {
            throw new LaneException(
                    "A sheet cannot have coordinates in \"" + length + "\"; give a unit of length, such as mm.");
        }
    }

    @Override
    public Sheet withFiles(UnaryOperator<String> path) {
        return new Sheet(path.apply(file), length, by, turned, sampled, in);
    }

    /** @param by and {@code turned}: null for where its file has it */
    public Sheet(String file, String length, @Nullable Point by, @Nullable Point turned, boolean sampled) {
        this(
                file,
                length,
                by == null ? new Point(0, 0, 0) : by,
                turned == null ? new Point(0, 0, 0) : turned,
                sampled,
                null);
    }

    @Override
    public Shape through(Axis frame) {
        return new Sheet(file, length, by, turned, sampled, in == null ? frame : frame.out(in));
    }

    @Override
    public String word() {
        return "sheet";
    }

    @Override
    public Sheet moved(Point further) {
        return new Sheet(file, length, by.plus(further), turned, sampled, in);
    }

    /** Values of a sheet that is cut where it passes from cell to cell are those within the cells. */
    @Override
    public boolean within() {
        return !sampled;
    }

    @Override
    public Cut cut(Run run, Resolver on) {
        return laid(run, on).cut();
    }

    /** What a sheet depends on. */
    private record Key(Mesh.Key mesh, Mesh.Key file, Sheet sheet) {}

    /** The sheet laid into a run, with what lies outside. */
    public LaidSheet laid(Run run, Resolver on) {
        Mesh mesh = on.sheet(file);
        if (run.mesh().dimension() != 3) {
            throw new LaneException("Sheet \"" + on.name() + "\" needs a run with volume; this one is plane.");
        }
        return on.keep(new Key(run.mesh().key(), mesh.key(), this), () -> {
            Mesh placed = placed(mesh);
            return sampled
                    ? LaidSheet.sampled(
                            run.locator(on.work()),
                            placed,
                            Placer.TOLERANCE * run.mesh().modelSize(),
                            on.work())
                    : LaidSheet.conformed(run.locator(on.work()), placed, on.work());
        });
    }

    /**
     * The sheet's own nodes where the station puts them.
     *
     * @param mesh as the file has it
     */
    public Mesh placed(Mesh mesh) {
        double[] x = mesh.xyz().clone();
        double f = Unit.of(length).factor();
        Axis[] about = {
            new Axis(new Point(0, 0, 0), new Point(1, 0, 0)), new Axis(new Point(0, 0, 0), new Point(0, 1, 0)), Axis.Z
        };
        double[] angles = {turned.x(), turned.y(), turned.z()};
        double[] v = new double[3];
        for (int i = 0; i < x.length; i += 3) {
            for (int d = 0; d < 3; d++) {
                v[d] = f * x[i + d];
            }
            for (int a = 0; a < 3; a++) {
                if (angles[a] != 0) {
                    about[a].turn(Math.toRadians(angles[a]), v, v);
                }
            }
            Point at = new Point(v[0], v[1], v[2]).plus(by);
            Point to = in == null ? at : in.out(at);
            x[i] = to.x();
            x[i + 1] = to.y();
            x[i + 2] = to.z();
        }
        return mesh.withNodes(x);
    }
}
