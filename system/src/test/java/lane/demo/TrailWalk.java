package lane.demo;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Consumer;
import lane.base.LaneException;
import lane.base.Work;
import lane.formats.study.StudyJson;
import lane.reading.Outcome;
import lane.reading.Reading;
import lane.study.Evaluator;
import lane.study.Results;
import lane.study.Source;

/**
 * Changes every number, flag, formula and word of a choice of a study in turn, evaluates it, and sees that whatever changes a
 * number changes its trail.
 */
final class TrailWalk {
    private static final Set<String> NAMES = Set.of("id", "kind", "name", "version", "note");
    private static final JsonNodeFactory F = JsonNodeFactory.instance;

    /** Words of choices, and what else they could be. */
    private static final Map<String, String> WORDS = Map.ofEntries(
            Map.entry("MEAN", "GREATEST"),
            Map.entry("CELLS", "NODES"),
            Map.entry("LENGTH", "COORDINATE"),
            Map.entry("START", "END"),
            Map.entry("NOTHING", "ANGULAR_MOMENTUM"),
            Map.entry("SIZE_MEAN", "MEAN"),
            Map.entry("FLUID", "WALL"),
            Map.entry("arc", "fraction"),
            Map.entry("cm", "mm"));

    private final Evaluator evaluator;
    private final ObjectNode root;
    private final Results base;
    private final Set<String> visited = new HashSet<>();
    private int numbers;

    private Results evaluate() {
        return evaluator.evaluate(StudyJson.of(root.toString(), "study"), Work.QUIET);
    }

    private static String values(Outcome o) {
        var out = new StringBuilder();
        o.scalars().forEach(s -> out.append(s.what())
                .append(s.estimate().value())
                .append(s.estimate().unit().label()));
        o.curve().ifPresent(p -> out.append(Arrays.toString(p.value())).append(Arrays.toString(p.abscissa())));
        return out.toString();
    }

    /** Something else of the same sort; null for what is left alone. */
    private static JsonNode other(String name, JsonNode was) {
        if (NAMES.contains(name)) {
            return null;
        }
        return was.isInt()
                ? F.numberNode(was.asInt() + 1)
                : was.isNumber()
                        ? F.numberNode(was.asDouble() == 0 ? 0.001 : was.asDouble() * 1.01)
                        : was.isBoolean()
                                ? F.booleanNode(!was.asBoolean())
                                : name.equals("formula")
                                        ? F.textNode("1.01*(" + was.asText() + ")")
                                        : WORDS.containsKey(was.asText()) ? F.textNode(WORDS.get(was.asText())) : null;
    }

    private void walk(JsonNode at, String path, String sort) {
        if (at instanceof ObjectNode o) {
            List<String> names = new ArrayList<>();
            o.fieldNames().forEachRemaining(names::add);
            String of = sort + o.path("kind").asText();
            for (String k : names) {
                JsonNode was = o.get(k);
                each(other(k, was), of + "/" + k, path + "/" + k, v -> o.set(k, v), was);
                walk(was, path + "/" + k, of + "/" + k);
            }
        } else if (at instanceof ArrayNode a) {
            for (int i = 0; i < a.size(); i++) {
                int n = i;
                JsonNode was = a.get(i);
                each(other("", was), sort + "/" + i, path + "/" + i, v -> a.set(n, v), was);
                walk(was, path + "/" + i, sort);
            }
        }
    }

    private void compare(Results now, String what) {
        for (Reading reading : base.study().readings()) {
            for (Source lane : base.study().sources()) {
                Outcome before = base.outcome(reading.id(), lane.id());
                Outcome after = now.outcome(reading.id(), lane.id());
                if (!values(before).equals(values(after))) {
                    numbers++;
                    assertThat(after.trail())
                            .as("%s changes %s of %s", what, reading.id(), lane.id())
                            .isNotEqualTo(before.trail());
                }
            }
        }
    }

    private void each(JsonNode other, String sort, String path, Consumer<JsonNode> put, JsonNode was) {
        if (other == null || !visited.add(sort)) {
            return;
        }
        put.accept(other);
        try {
            Results now = evaluate();
            compare(now, path + " from " + was + " to " + other);
        } catch (LaneException e) {
            // What the study cannot have has no number.
        } finally {
            put.accept(was);
        }
    }

    /** @param root the study */
    TrailWalk(Evaluator evaluator, ObjectNode root) {
        this.evaluator = evaluator;
        this.root = root;
        base = evaluate();
    }

    Results base() {
        return base;
    }

    /** @return how many numbers changed */
    int over(String... parts) {
        for (String part : parts) {
            walk(root.path(part), "/" + part, part);
        }
        return numbers;
    }

    /** Sees that what the same study gives elsewhere, or of other files, differs in its trail where it differs in numbers. */
    int against(Results now, String what) {
        int before = numbers;
        compare(now, what);
        return numbers - before;
    }
}
