package lane.formats.study;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.function.BiConsumer;
import java.util.function.Consumer;
import java.util.regex.Pattern;
import lane.base.LaneException;
import org.junit.jupiter.api.Test;

/** Studies that are not as they should be: each is refused in this program's words, or taken as it stands. */
class StudyMutationTest {
    private static final Pattern LIBRARY = Pattern.compile(
            "java\\.|jackson|JsonToken|eserializ|VALUE_|START_|Cannot construct|Cannot coerce|instance of|lane\\.[a-z]+\\."
                    + "[A-Z]|Exception|through reference|-argument|because \"|\\[Source");
    private static final JsonNodeFactory F = JsonNodeFactory.instance;

    private final ObjectNode seed;

    StudyMutationTest() throws IOException {
        try (var in = StudyMutationTest.class.getResourceAsStream("/lane/formats/study-seed.json")) {
            String newest = StudyJson.text(StudyJson.of(new String(in.readAllBytes(), StandardCharsets.UTF_8), "seed"));
            seed = (ObjectNode) new ObjectMapper().readTree(newest);
        }
    }

    /** @return the sentence; blank where it is accepted */
    private static String refused(String text) {
        try {
            // What is accepted can be written and is read again the same.
            var study = StudyJson.of(text, "x.json");
            assertThat(StudyJson.of(StudyJson.text(study), "again")).isEqualTo(study);
            return "";
        } catch (LaneException e) {
            return e.getMessage();
        }
    }

    private static void sound(String sentence, String what) {
        assertThat(LIBRARY.matcher(sentence).find())
                .as("%s: %s", what, sentence)
                .isFalse();
        assertThat(sentence.length()).as("%s: %s", what, sentence).isLessThan(700);
        assertThat(sentence).as(what).matches("(?s)[^\\p{Cntrl}]*");
    }

    private static List<String> names(JsonNode of) {
        List<String> names = new ArrayList<>();
        of.fieldNames().forEachRemaining(names::add);
        return names;
    }

    /** Visits every entry in turn with what puts another thing in its place; null takes it away. */
    private static void each(JsonNode at, String path, BiConsumer<String, Consumer<JsonNode>> visit) {
        if (at instanceof ObjectNode o) {
            for (String k : names(o)) {
                JsonNode was = o.get(k);
                visit.accept(path + "/" + k, to -> {
                    if (to == null) {
                        o.remove(k);
                    } else {
                        o.set(k, to);
                    }
                });
                o.set(k, was);
                each(was, path + "/" + k, visit);
            }
        } else if (at instanceof ArrayNode a) {
            var alike = new HashSet<Object>();
            for (int i = 0; i < a.size(); i++) {
                JsonNode was = a.get(i);
                // One of each sort is enough: things of the same entries and kinds fail alike.
                if (!alike.add(
                        List.of(names(was), was.path("kind"), was.at("/measure/kind"), was.at("/sampling/kind")))) {
                    continue;
                }
                int n = i;
                visit.accept(path + "/" + i, to -> a.set(n, to == null ? F.nullNode() : to));
                a.set(i, was);
                each(was, path + "/" + i, visit);
            }
        }
    }

    /** Whether one stands where a thing of another kind belongs. */
    private static boolean wrong(JsonNode was, JsonNode other) {
        if (other == null || other.isNull()) {
            return false;
        }
        boolean scalar = was.isTextual() || was.isNumber() || was.isBoolean();
        return scalar && other.isContainerNode()
                || was.isArray() && other.isValueNode()
                || was.isTextual() && (other.isNumber() || other.isBoolean())
                || was.isNumber() && (other.isTextual() || other.isBoolean());
    }

    @Test
    void everySortOfEntryMayBeMissingNullOrOfAnotherKind() {
        List<JsonNode> others = new ArrayList<>(List.of(
                F.nullNode(),
                F.textNode(""),
                F.textNode("zz\u001b[31m\n"),
                F.textNode("x".repeat(3000)),
                F.numberNode(-1),
                F.numberNode(1.5),
                F.numberNode(1e300),
                F.booleanNode(true),
                F.objectNode(),
                F.objectNode().put("zzz", 1),
                F.arrayNode(),
                F.arrayNode().addNull()));
        others.add(null);
        int[] counts = new int[2];
        each(seed, "", (path, put) -> {
            JsonNode was = seed.at(path);
            for (JsonNode other : others) {
                put.accept(other);
                String what = path + " := " + other;
                String sentence = refused(seed.toString());
                counts[sentence.isEmpty() ? 0 : 1]++;
                sound(sentence, what);
                if (wrong(was, other)) {
                    assertThat(sentence).as("%s was %s", what, was).isNotEmpty();
                }
            }
        });
        assertThat(counts[0]).as("accepted").isPositive();
        assertThat(counts[1]).as("refused").isGreaterThan(counts[0]);
    }

    @Test
    void aThousandDamagedTextsAreRefusedOrTakenAsTheyStand() {
        var random = new Random(7);
        String text = seed.toPrettyString();
        for (int i = 0; i < 1000; i++) {
            var b = new StringBuilder(text);
            for (int k = 0; k <= random.nextInt(3); k++) {
                int at = random.nextInt(b.length());
                switch (random.nextInt(5)) {
                    case 0 -> b.deleteCharAt(at);
                    case 1 -> b.insert(at, "{}[],:\"0-.e\\ \u0000".charAt(random.nextInt(14)));
                    case 2 -> b.setCharAt(at, (char) (32 + random.nextInt(95)));
                    case 3 -> b.setLength(Math.max(1, at));
                    default ->
                        b.insert(
                                random.nextInt(b.length()),
                                b.substring(at, Math.min(b.length(), at + random.nextInt(60))));
                }
            }
            sound(refused(b.toString()), "text " + i);
        }
    }

    @Test
    void whatIsWrongIsSaidWithItsPlaceWhatCameAndWhatBelongsThere() {
        ObjectNode first = (ObjectNode) seed.withArray("stations").get(0);
        String kind = first.get("kind").asText();
        first.put("kind", "sphere");
        assertThat(refused(seed.toString()))
                .startsWith("The study x.json cannot be used at stations[0]: kind \"sphere\" is not known; known are ");
        first.put("kind", kind);
        first.put("name", 7);
        assertThat(refused(seed.toString()))
                .isEqualTo(
                        "The study x.json cannot be used at stations[0].name: it is the number 7; a text belongs there.");
        first.put("name", "a");
        seed.put("statoins", 1);
        assertThat(refused(seed.toString())).contains("unknown entry \"statoins\" at its top; is \"stations\" meant?");
        seed.remove("statoins");
        first.put("id", "../../etc/passwd");
        assertThat(refused(seed.toString())).contains("has the id \"../../etc/passwd\"; an id is of letters");
    }

    @Test
    void whatFollowsOrStandsTwiceIsRefused() {
        String text = seed.toString();
        assertThat(refused(text + " {}")).contains("something follows the end of the study");
        assertThat(refused(text.replaceFirst("\\{", "{\"name\":\"other\",")))
                .contains("the entry \"name\" stands there twice; which is meant?");
        assertThatThrownBy(() -> StudyJson.of("[1]", "x.json")).hasMessageContaining("is no study");
        assertThatThrownBy(() -> StudyJson.of("", "x.json")).isInstanceOf(LaneException.class);
        assertThat(refused("[".repeat(100_000))).contains("nested");
    }
}
