package lane.demo;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Set;
import lane.base.Work;
import lane.formats.FileLibrary;
import lane.formats.study.StudyJson;
import lane.study.Evaluator;
import lane.study.Results;
import lane.study.Study;
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

    @Test
    void whateverChangesANumberOfAnyKindChangesItsTrail() throws IOException {
        var walk = new TrailWalk(new Evaluator(new FileLibrary(folder)), Bed.in(folder));
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
        ObjectNode root = Bed.in(folder);
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
        var bed = new Bed(folder);
        ObjectNode root = bed.bed();
        var walk = new TrailWalk(new Evaluator(new FileLibrary(folder)), root);
        List<Change> changes = List.of(
                () -> bed.run("dry.vtu", Bed.BED, 13),
                () -> bed.run("round.vtu", Bed.SLICE, 17),
                () -> bed.run("day1.vtu", Bed.BED, 18),
                () -> bed.sheet(24),
                () -> bed.rake(2));
        for (Change change : changes) {
            change.make();
            Results now =
                    new Evaluator(new FileLibrary(folder)).evaluate(StudyJson.of(root.toString(), "study"), Work.QUIET);
            assertThat(walk.against(now, "another file")).isPositive();
            bed.bed();
        }
    }
}
