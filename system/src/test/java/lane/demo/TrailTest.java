package lane.demo;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import lane.base.Work;
import lane.field.Field;
import lane.field.PartBuilder;
import lane.field.Values;
import lane.formats.FileLibrary;
import lane.formats.study.StudyJson;
import lane.formats.vtk.VtkXmlWriter;
import lane.formats.vtk.VtkXmlWriter.Options;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.study.Evaluator;
import lane.study.Results;
import lane.study.Study;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Whatever changes a number changes its trail: of the demo, and of every kind that the demo has not, in a bed of a greenhouse. */
class TrailTest {
    private static final String[] PARTS = {"settings", "sources", "quantities", "frames", "stations", "readings"};

    @TempDir
    Path folder;

    @Test
    void whateverChangesANumberOfTheDemoChangesItsTrail() throws IOException {
        Path study = DemoFiles.make(folder, DemoFiles.SMALL);
        var root = (ObjectNode) new ObjectMapper().readTree(Files.readString(study));
        // One mesh of the family says as much as three.
        root.remove("checks");
        ((ArrayNode) root.path("sources"))
                .removeIf(s -> Set.of("fine", "medium").contains(s.path("id").asText()));
        var walk = new TrailWalk(new Evaluator(new FileLibrary(folder)), root);
        assertThat(walk.over(PARTS)).as("numbers that changed").isGreaterThan(100);
    }

    private static final Mesh BED =
            BoxMesh.of(CellShape.HEXAHEDRON, new int[] {3, 2, 2}, new double[] {2, 1, 0.5}, 0.1, 7);

    /** Half of a round bed as a plane: x is its radius, y runs along its axis. */
    private static final Mesh SLICE = slice();

    private static Mesh slice() {
        double[] xyz = new double[3 * 25];
        int[] corners = new int[4 * 16];
        for (int i = 0; i < 25; i++) {
            xyz[3 * i] = 0.2 * (i % 5);
            xyz[3 * i + 1] = 0.1 * (i / 5);
        }
        for (int i = 0; i < 16; i++) {
            int first = i / 4 * 5 + i % 4;
            corners[4 * i] = first;
            corners[4 * i + 1] = first + 1;
            corners[4 * i + 2] = first + 6;
            corners[4 * i + 3] = first + 5;
        }
        return Mesh.uniform(xyz, CellShape.QUAD, corners);
    }

    private void run(String name, Mesh mesh, double more) throws IOException {
        double[] wet = new double[mesh.nodeCount()];
        double[] air = new double[3 * mesh.nodeCount()];
        double[] drag = new double[3 * mesh.nodeCount()];
        for (int i = 0; i < wet.length; i++) {
            double x = mesh.xyz()[3 * i];
            double y = mesh.xyz()[3 * i + 1];
            double z = mesh.xyz()[3 * i + 2];
            wet[i] = more + 30 * x + 10 * y * y + 5 * z;
            air[3 * i] = y + 0.1;
            air[3 * i + 1] = 0.3 + x;
            air[3 * i + 2] = 0.2 * z + more / 100;
            drag[3 * i] = 0.01 * wet[i];
            drag[3 * i + 2] = x * y;
        }
        VtkXmlWriter.writeGrid(
                folder.resolve(name),
                mesh,
                List.of(
                        new Field("wet", Field.At.NODE, 1, Unit.UNKNOWN, Values.of(wet)),
                        new Field("air", Field.At.NODE, 3, Unit.UNKNOWN, Values.of(air)),
                        new Field("drag", Field.At.NODE, 3, Unit.UNKNOWN, Values.of(drag))),
                Options.DEFAULT);
    }

    /** Three days of the bed; the one between is what the study looks at. */
    private void days(double more) throws IOException {
        var sets = new StringBuilder();
        for (int day = 0; day < 3; day++) {
            run("day" + day + ".vtu", BED, more + 3 * day);
            sets.append(String.format("<DataSet timestep=\"%d\" file=\"day%d.vtu\"/>", day, day));
        }
        Files.writeString(
                folder.resolve("days.pvd"),
                "<VTKFile type=\"Collection\"><Collection>" + sets + "</Collection></VTKFile>");
    }

    /** A tilted square, in centimetres. */
    private void sheet(double height) throws IOException {
        String corners =
                "%1$s\nfacet normal 0 0 1\nouter loop\nvertex %2$s\nvertex %3$s\nvertex %4$s\nendloop\nendfacet\n";
        Files.writeString(
                folder.resolve("net.stl"),
                String.format(corners, "solid net", "40 20 " + height, "150 20 " + height, "150 80 " + (height + 4))
                        + String.format(
                                corners, "", "40 20 " + height, "150 80 " + (height + 4), "40 80 " + (height + 4))
                        + "endsolid net\n");
    }

    private void rake(double more) throws IOException {
        Files.writeString(
                folder.resolve("rake.csv"), "depth [m];wetness;depth [cm]\n0;" + more + ";100\n1;4;10\n2;9;0\n");
    }

    private ObjectNode bed() throws IOException {
        run("dry.vtu", BED, 12);
        run("round.vtu", SLICE, 16);
        days(14);
        VtkXmlWriter.writeSurface(
                folder.resolve("skin.vtp"), new PartBuilder(BED).whole("skin").surface(), List.of(), Options.DEFAULT);
        sheet(20);
        rake(1);
        try (var in = Objects.requireNonNull(TrailTest.class.getResourceAsStream("/lane/demo/every-kind.lane.json"))) {
            return (ObjectNode) new ObjectMapper().readTree(in);
        }
    }

    @Test
    void whateverChangesANumberOfAnyKindChangesItsTrail() throws IOException {
        var walk = new TrailWalk(new Evaluator(new FileLibrary(folder)), bed());
        Results base = walk.base();
        for (var reading : base.study().readings()) {
            String lane = reading.ask() instanceof lane.reading.MonitorOf ? "rake" : "bed";
            assertThat(base.outcome(reading.id(), lane).scalars().isEmpty()
                            && base.outcome(reading.id(), lane).curve().isEmpty())
                    .as("%s has a number: %s", reading.id(), base.outcome(reading.id(), lane))
                    .isFalse();
        }
        assertThat(walk.over(PARTS)).as("numbers that changed").isGreaterThan(300);
    }

    /** What the schema lets one leave out may be left out: the study opens, and no answer is a fault of the program. */
    @Test
    void whatMayBeLeftOutMayBeLeftOut() throws IOException {
        ObjectNode root = bed();
        var schema = com.networknt.schema.JsonSchemaFactory.getInstance(
                        com.networknt.schema.SpecVersion.VersionFlag.V202012)
                .getSchema(Files.readString(Path.of("../docs/study.schema.json")));
        assertThat(schema.validate(root)).isEmpty();
        var evaluator = new Evaluator(new FileLibrary(folder));
        Study whole = StudyJson.of(root.toString(), "study");
        var wrong = new java.util.ArrayList<String>();
        int[] tried = new int[2];
        leave(root, "", path -> {
            boolean may = schema.validate(alone(root, path)).isEmpty();
            tried[may ? 0 : 1]++;
            Results r = null;
            try {
                Study left = StudyJson.of(root.toString(), "study");
                if (left.equals(whole)) {
                    // It stands for what was left out, and gives the same answers.
                    return;
                }
                r = evaluator.evaluate(left, Work.QUIET);
            } catch (lane.base.LaneException e) {
                if (may) {
                    wrong.add(path + " is refused: " + e.getMessage());
                }
            } catch (RuntimeException e) {
                wrong.add(path + ": " + e);
            }
            if (r != null) {
                for (var reading : r.study().readings()) {
                    if (r.outcome(reading.id(), "bed") instanceof lane.reading.Outcome.Absent a
                            && a.reason().contains("fault of the program")) {
                        wrong.add(path + " gives a fault in " + reading.id());
                    }
                }
            }
        });
        assertThat(wrong).isEmpty();
        assertThat(tried[0]).as("left out as the schema lets").isGreaterThan(70);
        assertThat(tried[1]).as("left out though it is required").isGreaterThan(70);
    }

    /** A study of the one entry that a path leads into: a schema looks at each by itself. */
    private static ObjectNode alone(ObjectNode root, String path) {
        String[] steps = path.split("/");
        if (steps.length < 3) {
            return root;
        }
        ObjectNode out = root.objectNode();
        out.set("version", root.path("version"));
        out.set("name", root.path("name"));
        if (!(root.path(steps[1]) instanceof ArrayNode all)) {
            out.set(steps[1], root.path(steps[1]));
            return out;
        }
        out.putArray(steps[1]).add(all.get(Integer.parseInt(steps[2])));
        return out;
    }

    private interface Left {
        void see(String path);
    }

    private final Set<String> left = new java.util.HashSet<>();

    /** Leaves out each key of each kind of object in turn. */
    private void leave(com.fasterxml.jackson.databind.JsonNode at, String path, Left then) {
        if (at instanceof ObjectNode o) {
            List<String> names = new java.util.ArrayList<>();
            o.fieldNames().forEachRemaining(names::add);
            String sort = path.replaceAll("\\d+", "") + o.path("kind").asText();
            for (String name : names) {
                var was = o.get(name);
                leave(was, path + "/" + name, then);
                if (left.add(sort + "/" + name)) {
                    o.remove(name);
                    then.see(path + "/" + name);
                    o.set(name, was);
                }
            }
        } else if (at instanceof ArrayNode a) {
            for (int i = 0; i < a.size(); i++) {
                leave(a.get(i), path + "/" + i, then);
            }
        }
    }

    private interface Change {
        void make() throws IOException;
    }

    @Test
    void soDoesAnotherContentOfAnyFileThatANumberReaches() throws IOException {
        ObjectNode root = bed();
        var walk = new TrailWalk(new Evaluator(new FileLibrary(folder)), root);
        List<Change> changes = List.of(
                () -> run("dry.vtu", BED, 13),
                () -> run("round.vtu", SLICE, 17),
                () -> run("day1.vtu", BED, 18),
                () -> sheet(24),
                () -> rake(2));
        for (Change change : changes) {
            change.make();
            Results now =
                    new Evaluator(new FileLibrary(folder)).evaluate(StudyJson.of(root.toString(), "study"), Work.QUIET);
            assertThat(walk.against(now, "another file")).isPositive();
            bed();
        }
    }
}
