package lane.formats.study;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.HashSet;
import java.util.Set;
import lane.study.Study;

/** Studies written before, brought to the form of today. What is not understood is left for the reader to refuse. */
final class Migration {
    private Migration() {}

    /** @param version of the file, lower than today's */
    static void toNewest(ObjectNode root, int version) {
        if (version < 2) {
            checksHaveKinds(root);
            stationsKnowTheirFrame(root);
            whatHoldsForAllStandsTogether(root);
        }
        if (version < 3) {
            numbersOfCurvesHoldThem(root);
        }
        root.put("version", Study.VERSION);
    }

    /** Before version 2 a check of a balance was told by its reading alone, and judged its residual. */
    private static void checksHaveKinds(ObjectNode root) {
        Set<String> balances = new HashSet<>();
        for (JsonNode reading : root.path("readings")) {
            if (reading.path("kind").asText().equals("balance")) {
                balances.add(reading.path("id").asText());
            }
        }
        for (JsonNode check : root.path("checks")) {
            if (!(check instanceof ObjectNode c) || c.has("kind")) {
                continue;
            }
            if (balances.contains(c.path("reading").asText())) {
                c.put("kind", "closure");
                c.put("absolute", c.path("scale").asText().equalsIgnoreCase("absolute"));
                c.remove(Set.of("norm", "scale", "datum"));
            } else {
                c.put("kind", "datum");
            }
        }
    }

    /** Before version 2 settings and pictures stood beside everything else. */
    private static void whatHoldsForAllStandsTogether(ObjectNode root) {
        group(root, "settings", "datum", "off", "axis", "time", "units", "recipes");
        group(root, "pictures", "views", "notes");
    }

    private static void group(ObjectNode root, String group, String... names) {
        ObjectNode inner = root.objectNode();
        for (String name : names) {
            JsonNode found = root.remove(name);
            if (found != null) {
                inner.set(name, found);
            }
        }
        root.set(group, inner);
    }

    /** Before version 2 the frames of stations stood in a list of their own. */
    private static void stationsKnowTheirFrame(ObjectNode root) {
        JsonNode frames = root.remove("inFrame");
        for (JsonNode station : root.path("stations")) {
            JsonNode frame =
                    frames == null ? null : frames.get(station.path("id").asText());
            if (station instanceof ObjectNode s && frame != null) {
                s.set("frame", frame);
            }
        }
    }

    /** Before version 3 a number of a curve was that of a profile, and named its station and quantity itself. */
    private static void numbersOfCurvesHoldThem(ObjectNode root) {
        for (JsonNode reading : root.path("readings")) {
            if (reading instanceof ObjectNode r && r.path("kind").asText().equals("feature") && !r.has("of")) {
                ObjectNode of = r.putObject("of");
                of.put("kind", "profile");
                for (String name : new String[] {"station", "quantity"}) {
                    JsonNode found = r.remove(name);
                    if (found != null) {
                        of.set(name, found);
                    }
                }
            }
        }
    }
}
