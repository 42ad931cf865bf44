package lane.evaluation;

import java.util.Arrays;
import java.util.Objects;
import lane.base.LaneException;
import lane.cut.Stencil;
import lane.field.Field;
import lane.field.Part;
import lane.field.Run;
import lane.field.Values;
import lane.formula.Spot;
import lane.mesh.Axis;
import lane.mesh.Cell;
import lane.mesh.CellMeasures;
import lane.mesh.Mesh;
import lane.station.Placement;
import org.jspecify.annotations.Nullable;

/** Places of a run at which quantities are computed: samples, nodes, cells, nodes and faces of parts, points of cuts. */
public final class SamplePoints {
    private SamplePoints() {}

    private static LaneException unknown(Object spot) {
        return new LaneException(
                "\"" + ((Spot) spot).word() + "\" is not known at such places; read it on a surface" + " or a region.");
    }

    private static void nan(int n, double[] into) {
        Arrays.fill(into, 0, n, Double.NaN);
    }

    private static void volumes(Mesh mesh, int @Nullable [] cells, int from, int n, double[] into) {
        var cell = new Cell(mesh);
        for (int i = 0; i < n; i++) {
            int c = cells == null ? from + i : cells[from + i];
            into[i] = c < 0 ? Double.NaN : cell.load(c).measure();
        }
    }

    /**
     * Samples of a path, or points.
     *
     * @param turned the axis whose plane mesh of a full turn is sampled; null for none
     */
    public static BoundQuantity.Targets samples(Run run, Placement p, @Nullable Axis turned) {
        return new BoundQuantity.Targets() {
            @Override
            public int size() {
                return p.size();
            }

            @Override
            public void load(@Nullable Field f, Object spot, int component, int from, int n, double[] into) {
                if (f != null) {
                    Axis about = f.components() == 3 ? turned : null;
                    boolean turn = about != null;
                    double[] v = new double[turn ? 3 : 1];
                    for (int i = 0; i < n; i++) {
                        for (int d = 0; d < v.length; d++) {
                            v[d] = value(f, from + i, turn ? d : component);
                        }
                        if (about != null) {
                            int at = 3 * (from + i);
                            about.turn(about.angle(p.xyz()[at], p.xyz()[at + 1], p.xyz()[at + 2]), v, v);
                        }
                        into[i] = v[turn ? component : 0];
                    }
                } else if (spot == Spot.PLACE) {
                    take(p.xyz(), component, from, n, into);
                } else if (spot == Spot.CELL_VOLUME) {
                    volumes(run.mesh(), p.cell(), from, n, into);
                } else {
                    throw unknown(spot);
                }
            }

            private double value(Field f, int i, int component) {
                int cell = p.cell()[i];
                int c = f.components();
                if (cell < 0) {
                    return Double.NaN;
                }
                Values values = f.values();
                if (f.at() == Field.At.CELL) {
                    return values.get(cell * c + component);
                }
                double sum = 0;
                for (int k = p.start()[i]; k < p.start()[i + 1]; k++) {
                    sum += p.share()[k] * values.get(p.node()[k] * c + component);
                }
                return sum;
            }
        };
    }

    /** One component of vectors that stand one after the other. */
    private static void take(double[] vectors, int component, int from, int n, double[] into) {
        for (int i = 0; i < n; i++) {
            into[i] = vectors[3 * (from + i) + component];
        }
    }

    /** All nodes of a run; fields in cells have no value there. */
    public static BoundQuantity.Targets nodes(Run run) {
        Mesh mesh = run.mesh();
        return new BoundQuantity.Targets() {
            @Override
            public int size() {
                return mesh.nodeCount();
            }

            @Override
            public void load(@Nullable Field f, Object spot, int component, int from, int n, double[] into) {
                if (f != null) {
                    f.values().load(from, n, f.components(), component, into);
                } else if (spot == Spot.PLACE) {
                    take(mesh.xyz(), component, from, n, into);
                } else {
                    throw unknown(spot);
                }
            }
        };
    }

    /** All cells of a run; node fields are taken as the mean of the cell's nodes, places as well. */
    public static BoundQuantity.Targets cells(Run run) {
        Mesh mesh = run.mesh();
        return new BoundQuantity.Targets() {
            @Override
            public int size() {
                return mesh.cellCount();
            }

            @Override
            public void load(@Nullable Field f, Object spot, int component, int from, int n, double[] into) {
                if (f != null && f.at() == Field.At.CELL) {
                    f.values().load(from, n, f.components(), component, into);
                } else if (f != null || spot == Spot.PLACE) {
                    for (int i = 0; i < n; i++) {
                        int c = from + i;
                        double sum = 0;
                        for (int k = mesh.begin(c); k < mesh.begin(c) + mesh.size(c); k++) {
                            int node = mesh.nodes()[k];
                            sum += f == null
                                    ? mesh.xyz()[3 * node + component]
                                    : f.values().get(node * f.components() + component);
                        }
                        into[i] = sum / mesh.size(c);
                    }
                } else if (spot == Spot.CELL_VOLUME) {
                    volumes(mesh, null, from, n, into);
                } else {
                    throw unknown(spot);
                }
            }
        };
    }

    /** Nodes of a part. */
    public static BoundQuantity.Targets nodesOf(Run run, Part part) {
        Mesh mesh = part.surface();
        return new BoundQuantity.Targets() {
            private final PartNodes nodes = new PartNodes(run, part);
            private double @Nullable [] normals;

            @Override
            public int size() {
                return mesh.nodeCount();
            }

            @Override
            public void load(@Nullable Field f, Object spot, int component, int from, int n, double[] into) {
                if (f != null) {
                    for (int i = 0; i < n; i++) {
                        into[i] = nodes.at(f, component, from + i);
                    }
                } else if (spot == Spot.PLACE) {
                    take(mesh.xyz(), component, from, n, into);
                } else if (spot == Spot.NORMAL) {
                    double[] all = normals();
                    take(all, component, from, n, into);
                } else {
                    throw unknown(spot);
                }
            }

            /** Those of the faces around, weighted by area. */
            private synchronized double[] normals() {
                if (normals == null) {
                    double[] sum = new double[3 * mesh.nodeCount()];
                    var cell = new Cell(mesh);
                    for (int face = 0; face < mesh.cellCount(); face++) {
                        double[] a = CellMeasures.areaVector(cell.load(face));
                        for (int k = 0; k < mesh.size(face); k++) {
                            for (int d = 0; d < 3; d++) {
                                sum[3 * mesh.nodes()[mesh.begin(face) + k] + d] += a[d];
                            }
                        }
                    }
                    for (int i = 0; i < sum.length; i += 3) {
                        double l = Math.sqrt(sum[i] * sum[i] + sum[i + 1] * sum[i + 1] + sum[i + 2] * sum[i + 2]);
                        for (int d = 0; d < 3; d++) {
                            sum[i + d] /= l;
                        }
                    }
                    normals = sum;
                }
                return normals;
            }
        };
    }

    /** Faces of a part; node values are taken as the mean of the face's nodes. */
    public static BoundQuantity.Targets facesOf(Run run, Part part) {
        Mesh mesh = part.surface();
        return new BoundQuantity.Targets() {
            private final PartNodes nodes = new PartNodes(run, part);

            @Override
            public int size() {
                return mesh.cellCount();
            }

            @Override
            public void load(@Nullable Field f, Object spot, int component, int from, int n, double[] into) {
                if (f == null && spot == Spot.CELL_VOLUME) {
                    volumes(run.mesh(), part.owner(), from, n, into);
                    return;
                }
                boolean own = f != null && part.fields().contains(f);
                var cell = new Cell(mesh);
                for (int i = 0; i < n; i++) {
                    into[i] = one(f, spot, component, from + i, own, cell);
                }
            }

            private double one(@Nullable Field f, Object spot, int component, int face, boolean own, Cell cell) {
                if (f != null && f.at() == Field.At.CELL) {
                    int at = own ? face : part.owner()[face];
                    return at < 0 ? Double.NaN : f.values().get(at * f.components() + component);
                }
                if (spot == Spot.NORMAL || spot == Spot.FACE_AREA) {
                    double[] a = CellMeasures.areaVector(cell.load(face));
                    double l = Math.sqrt(a[0] * a[0] + a[1] * a[1] + a[2] * a[2]);
                    return spot == Spot.NORMAL ? a[component] / l : l;
                }
                if (f == null && spot != Spot.PLACE) {
                    throw unknown(spot);
                }
                double sum = 0;
                for (int k = 0; k < mesh.size(face); k++) {
                    int local = mesh.nodes()[mesh.begin(face) + k];
                    sum += f == null ? mesh.xyz()[3 * local + component] : nodes.at(f, component, local);
                }
                return sum / mesh.size(face);
            }
        };
    }

    /**
     * Points cut out of a run or of a part.
     *
     * @param xyz three to a point
     * @param stencil from nodes of the surface that was cut, or of the run
     * @param node node of the run for each node of that surface; null where the stencil is from the run's
     * @param cell of the run for each point
     * @param own whether fields of the part itself stand at the surface's nodes and faces
     * @param face of that surface for each point, for its own fields in faces; null for none
     */
    public static BoundQuantity.Targets cut(
            Run run,
            double[] xyz,
            Stencil stencil,
            int @Nullable [] node,
            int[] cell,
            @Nullable Part own,
            int @Nullable [] face) {
        return new BoundQuantity.Targets() {
            @Override
            public int size() {
                return xyz.length / 3;
            }

            @Override
            public void load(@Nullable Field f, Object spot, int component, int from, int n, double[] into) {
                if (f == null) {
                    if (spot == Spot.CELL_VOLUME) {
                        volumes(run.mesh(), cell, from, n, into);
                    } else if (spot == Spot.PLACE) {
                        for (int i = 0; i < n; i++) {
                            into[i] = xyz[3 * (from + i) + component];
                        }
                    } else {
                        throw unknown(spot);
                    }
                    return;
                }
                boolean ofPart = own != null && own.fields().contains(f);
                int[] of = ofPart ? Objects.requireNonNull(face) : cell;
                int c = f.components();
                Values values = f.values();
                nan(n, into);
                for (int i = 0; i < n; i++) {
                    int p = from + i;
                    if (f.at() == Field.At.CELL) {
                        int at = of[p];
                        into[i] = at < 0 ? Double.NaN : values.get(at * c + component);
                        continue;
                    }
                    double sum = 0;
                    for (int k = stencil.start()[p]; k < stencil.start()[p + 1]; k++) {
                        int local = stencil.node()[k];
                        int at = ofPart || node == null ? local : node[local];
                        sum += stencil.share()[k] * (at < 0 ? Double.NaN : values.get(at * c + component));
                    }
                    into[i] = sum;
                }
            }
        };
    }
}
