package lane.picture.field;

import java.util.List;
import lane.mesh.Axis;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.mesh.Point;

/**
 * What a field picture shows: surfaces of triangles with values.
 *
 * @param away what is cut away of surfaces that let it, to look inside
 */
public record Scene(List<Surface> surfaces, List<Away> away) {
    public Scene {
        surfaces = List.copyOf(surfaces);
        away = List.copyOf(away);
    }

    public Scene(List<Surface> surfaces) {
        this(surfaces, List.of());
    }

    /**
     * A space that is not drawn: where a place is on the side that the normals point to of all of its planes.
     *
     * @param points one on each plane
     * @param normals of the planes
     */
    public record Away(List<Point> points, List<Point> normals) {
        public Away {
            points = List.copyOf(points);
            normals = List.copyOf(normals);
        }

        /** What lies before a plane. */
        public static Away before(Point point, Point normal) {
            return new Away(List.of(point), List.of(normal));
        }

        /**
         * What lies in a box.
         *
         * @param b least and greatest x, y and z in the frame
         */
        public static Away inside(double[] b, Axis frame) {
            Point low = frame.out(new Point(b[0], b[2], b[4]));
            Point high = frame.out(new Point(b[1], b[3], b[5]));
            Point x = frame.zero();
            Point y = frame.quarter();
            Point z = frame.direction();
            return new Away(
                    List.of(low, low, low, high, high, high), List.of(x, y, z, x.times(-1), y.times(-1), z.times(-1)));
        }
    }

    /**
     * A surface cut into triangles.
     *
     * @param name of the part
     * @param xyz corner coordinates, three to a node
     * @param corners three nodes a triangle
     * @param face the face of the part that a triangle belongs to
     * @param value a value a node, or a face, in SI units; empty for a surface of one colour
     * @param byNode whether values belong to nodes
     * @param opacity 1 hides what is behind, 0 is not drawn
     * @param whole whether nothing of it is cut away
     * @param edge for each triangle, bits 0 to 2: its side is an edge of the face
     * @param geometry of the triangles
     */
    public record Surface(
            String name,
            double[] xyz,
            int[] corners,
            int[] face,
            float[] value,
            boolean byNode,
            double opacity,
            byte[] edge,
            boolean whole,
            Geometry geometry) {
        public Surface(
                String name,
                double[] xyz,
                int[] corners,
                int[] face,
                float[] value,
                boolean byNode,
                double opacity,
                byte[] edge,
                boolean whole) {
            this(name, xyz, corners, face, value, byNode, opacity, edge, whole, new Geometry(xyz, corners));
        }

        /** The same, never cut away. */
        public Surface kept() {
            return new Surface(name, xyz, corners, face, value, byNode, opacity, edge, true, geometry);
        }

        /** The same triangles under another name with other values. */
        public Surface showing(String part, float[] others, boolean eachNode, double seen) {
            return new Surface(part, xyz, corners, face, others, eachNode, seen, edge, whole, geometry);
        }

        public int triangles() {
            return face.length;
        }

        /** Mean of the values at the corners of a triangle's face; the triangles of a face stand one after the other. */
        float mean(int triangle) {
            int first = triangle;
            while (first > 0 && face[first - 1] == face[triangle]) {
                first--;
            }
            double sum = value[corners[3 * first]] + value[corners[3 * first + 1]];
            int n = 2;
            for (int t = first; t < face.length && face[t] == face[triangle]; t++) {
                sum += value[corners[3 * t + 2]];
                n++;
            }
            return (float) (sum / n);
        }
    }

    /** Cuts a surface mesh into triangles; line cells and vertices are left out. */
    public static Surface surface(String name, Mesh mesh, float[] value, boolean byNode, double opacity) {
        int n = 0;
        for (int c = 0; c < mesh.cellCount(); c++) {
            n += mesh.shape(c).dimension() == 2 ? mesh.shape(c).rim(mesh.size(c)) - 2 : 0;
        }
        int[] corners = new int[3 * n];
        int[] face = new int[n];
        byte[] edge = new byte[n];
        int t = 0;
        for (int c = 0; c < mesh.cellCount(); c++) {
            if (mesh.shape(c).dimension() != 2) {
                continue;
            }
            CellShape shape = mesh.shape(c);
            int size = shape.rim(mesh.size(c));
            int begin = mesh.begin(c);
            for (int k = 1; k + 1 < size; k++) {
                corners[3 * t] = mesh.nodes()[begin];
                corners[3 * t + 1] = mesh.nodes()[begin + shape.around(k)];
                corners[3 * t + 2] = mesh.nodes()[begin + shape.around(k + 1)];
                edge[t] = (byte) ((k == 1 ? 1 : 0) | 2 | (k + 2 == size ? 4 : 0));
                face[t++] = c;
            }
        }
        return new Surface(name, mesh.xyz(), corners, face, value, byNode, opacity, edge, false);
    }
}
