package lane.formats.study;

import com.fasterxml.jackson.core.JacksonException;
import com.fasterxml.jackson.core.exc.StreamReadException;
import com.fasterxml.jackson.databind.JavaType;
import com.fasterxml.jackson.databind.JsonMappingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.exc.InvalidTypeIdException;
import com.fasterxml.jackson.databind.exc.MismatchedInputException;
import com.fasterxml.jackson.databind.exc.UnrecognizedPropertyException;
import java.lang.reflect.RecordComponent;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import lane.base.Fault;
import lane.base.Kinds;
import lane.base.LaneException;
import lane.base.Near;
import lane.base.Plain;
import lane.check.Check;
import lane.check.Rule;
import lane.check.RuleKind;
import lane.measure.Measure;
import lane.measure.MeasureKind;
import lane.reading.Ask;
import lane.reading.AskKind;
import lane.reading.Reading;
import lane.station.Shape;
import lane.station.ShapeKind;
import lane.station.Station;
import org.jspecify.annotations.Nullable;

/**
 * Says what is wrong with a study in this program's words: the place as {@code stations[3].shape}, what stands there, and what
 * belongs there.
 */
final class StudyFault {
    private static final double LARGEST = 1e100;

    private static final Pattern QUOTED = Pattern.compile("\"([^\"]*)\"");

    private StudyFault() {}

    /**
     * The sentence for an entry that cannot be used.
     *
     * @param tree the whole study
     * @param where names the file
     */
    static LaneException of(JsonMappingException e, JsonNode tree, String where) {
        List<JsonMappingException.Reference> path = e.getPath();
        String place = place(path);
        String head = "The study " + where + " cannot be used" + (place.isEmpty() ? "" : " at " + place) + ": ";
        if (e instanceof UnrecognizedPropertyException u) {
            String within = place(path.subList(0, Math.max(0, path.size() - 1)));
            return new LaneException(
                    Fault.DAMAGED,
                    "The study " + where + " has an unknown entry " + Plain.quoted(u.getPropertyName()) + " at "
                            + (within.isEmpty() ? "its top" : within) + nearest(u) + ".",
                    e);
        }
        for (Throwable t = e; t != null; t = t.getCause()) {
            if (t instanceof LaneException l) {
                return new LaneException(Fault.DAMAGED, head + brief(l.getMessage()), e);
            }
        }
        JsonNode at = at(tree, path);
        if (e instanceof InvalidTypeIdException t) {
            String given = t.getTypeId();
            return new LaneException(
                    Fault.DAMAGED,
                    head + (given == null ? "it has no kind" : "kind " + Plain.quoted(given) + " is not known")
                            + kinds(t) + ".",
                    e);
        }
        JavaType wanted = e instanceof MismatchedInputException m && m.getTargetType() != null
                ? com.fasterxml.jackson.databind.type.TypeFactory.defaultInstance()
                        .constructType(m.getTargetType())
                : null;
        if (at == null || at.isMissingNode()) {
            return new LaneException(Fault.DAMAGED, head + "it is missing" + belongs(wanted) + ".", e);
        }
        String lacks = at.isObject() && wanted != null ? lacking(at, wanted.getRawClass()) : "";
        return new LaneException(Fault.DAMAGED, head + (lacks.isEmpty() ? came(at) + belongs(wanted) : lacks) + ".", e);
    }

    /** Long values that a sentence quotes are cut. */
    private static String brief(String sentence) {
        return QUOTED.matcher(Plain.line(sentence))
                .replaceAll(m -> Matcher.quoteReplacement(
                        m.group(1).length() > 60 ? "\"" + m.group(1).substring(0, 60) + "…\"" : m.group()));
    }

    /** The sentence for a text that is no JSON. */
    static LaneException of(JacksonException e, String where) {
        return new LaneException(Fault.DAMAGED, "The study " + where + unsound(e), e);
    }

    /** Where and why a text is no JSON, as the end of a sentence. */
    static String unsound(JacksonException e) {
        // What is nested too deep has no place.
        String line = e.getLocation() == null ? "" : "line " + e.getLocation().getLineNr() + ": ";
        return " is no sound JSON: " + line + why(e) + ".";
    }

    private static String why(JacksonException e) {
        String said = String.valueOf(e.getOriginalMessage());
        if (said.startsWith("Duplicate field") || said.startsWith("Duplicate Object")) {
            int from = said.indexOf('\'') < 0 ? said.indexOf('"') : said.indexOf('\'');
            int to = Math.max(said.lastIndexOf('\''), said.lastIndexOf('"'));
            return "the entry " + Plain.quoted(from >= 0 && to > from ? said.substring(from + 1, to) : "")
                    + " stands there twice; which is meant?";
        }
        if (said.contains("Trailing token")) {
            return "something follows the end of the study";
        }
        if (said.contains("end-of-input") || said.contains("end of input")) {
            return "the text ends too early";
        }
        if (said.contains("nesting depth") || said.contains("exceeds the maximum")) {
            return "it is nested or long beyond all use";
        }
        // The library's own words, up to where it names its parts.
        String brief = said.replaceAll("\\(.*", "")
                .replaceAll("\\s*at \\[.*", "")
                .replaceAll(" or token .*", "")
                .strip();
        return e instanceof StreamReadException && brief.length() < 120 && !brief.isEmpty()
                ? Plain.line(brief.substring(0, 1).toLowerCase(Locale.ROOT) + brief.substring(1))
                        .replace(" token", " mark")
                : "it cannot be read from there on";
    }

    /** @throws LaneException when a number of the study is none, or beyond all use */
    static void numbers(JsonNode at, String path, String where) {
        if (at.isNumber() && !(Math.abs(at.doubleValue()) <= LARGEST)) {
            throw new LaneException(
                    Fault.DAMAGED,
                    "The study " + where + " cannot be used at " + path + ": the number is beyond 1e100; correct it.");
        }
        if (at.isObject()) {
            at.properties()
                    .forEach(e -> numbers(
                            e.getValue(),
                            path.isEmpty() ? Plain.line(e.getKey()) : path + "." + Plain.line(e.getKey()),
                            where));
        } else if (at.isArray()) {
            for (int i = 0; i < at.size(); i++) {
                numbers(at.get(i), path + "[" + i + "]", where);
            }
        }
    }

    /** Such as {@code stations[3].shape}; blank for the top. */
    private static String place(List<JsonMappingException.Reference> path) {
        var out = new StringBuilder();
        for (JsonMappingException.Reference r : path) {
            if (r.getFieldName() == null) {
                out.append('[').append(r.getIndex()).append(']');
            } else {
                out.append(out.isEmpty() ? "" : ".").append(Plain.line(r.getFieldName()));
            }
        }
        return out.toString();
    }

    private static @Nullable JsonNode at(JsonNode tree, List<JsonMappingException.Reference> path) {
        JsonNode now = tree;
        for (JsonMappingException.Reference r : path) {
            now = r.getFieldName() == null ? now.path(r.getIndex()) : now.path(r.getFieldName());
        }
        return now;
    }

    /** What stands at a place. */
    static String came(JsonNode at) {
        return switch (at.getNodeType()) {
            case NULL -> "it is null";
            case STRING ->
                at.asText().isEmpty() ? "it is an empty text" : "it is the text " + Plain.quoted(at.asText());
            case NUMBER -> "it is the number " + at.asText();
            case BOOLEAN -> "it is " + at.asText();
            case ARRAY -> "it is a list";
            case OBJECT -> "its entries do not go together";
            default -> "it cannot be used";
        };
    }

    /** What belongs at a place, by the kind of thing that is made of it. */
    private static String belongs(@Nullable JavaType wanted) {
        if (wanted == null) {
            return "";
        }
        Class<?> raw = wanted.getRawClass();
        String what;
        if (raw.isEnum()) {
            what = "one of "
                    + String.join(
                            ", ",
                            Arrays.stream(raw.getEnumConstants())
                                    .map(c -> ((Enum<?>) c).name().toLowerCase(Locale.ROOT))
                                    .toList());
        } else if (raw == int.class || raw == Integer.class || raw == long.class) {
            what = "a whole number";
        } else if (raw == double.class || raw == Double.class) {
            what = "a number";
        } else if (raw == boolean.class || raw == Boolean.class) {
            what = "true or false";
        } else if (raw == String.class) {
            what = "a text";
        } else if (Collection.class.isAssignableFrom(raw) || raw.isArray()) {
            what = "a list";
        } else if (Map.class.isAssignableFrom(raw)) {
            what = "an object of names and values";
        } else if (raw.isRecord()) {
            what = "an object with " + entries(raw);
        } else {
            what = "an object";
        }
        return "; " + what + " belongs there";
    }

    private static String entries(Class<?> record) {
        return String.join(
                ", ",
                Arrays.stream(record.getRecordComponents())
                        .map(RecordComponent::getName)
                        .toList());
    }

    /** Entries that an object has not, or has as null, though what is made of it has them; blank for none. */
    private static String lacking(JsonNode at, Class<?> made) {
        if (!made.isRecord()) {
            return "";
        }
        List<String> out = new ArrayList<>();
        for (RecordComponent c : made.getRecordComponents()) {
            if (!at.hasNonNull(c.getName())) {
                out.add(c.getName());
            }
        }
        return out.isEmpty() ? "" : "it gives no " + String.join(", no ", out);
    }

    /** The kinds that belong there, with the one that comes near. */
    private static String kinds(InvalidTypeIdException e) {
        Class<?> base = e.getBaseType() == null ? Object.class : e.getBaseType().getRawClass();
        List<String> known = of(base);
        String said = e.getOriginalMessage();
        int at = said.indexOf("known type ids = [");
        if (known.isEmpty() && at >= 0) {
            known = List.of(said.substring(at + 18, Math.max(at + 18, said.indexOf(']', at)))
                    .split(", "));
        }
        if (known.isEmpty()) {
            return "";
        }
        String given = e.getTypeId() == null ? "" : e.getTypeId();
        String near = known.stream()
                .filter(k -> Near.letters(k, given) <= Math.max(1, k.length() / 3))
                .min(java.util.Comparator.comparingInt(k -> Near.letters(k, given)))
                .orElse("");
        return (near.isEmpty() ? "; known are " : "; is \"" + near + "\" meant? Known are ") + String.join(", ", known);
    }

    private static List<String> of(Class<?> base) {
        List<? extends Kinds.Kind<?>> all = Rule.class.isAssignableFrom(base) || base == Check.class
                ? RuleKind.ALL.all()
                : Shape.class.isAssignableFrom(base) || base == Station.class
                        ? ShapeKind.ALL.all()
                        : Ask.class.isAssignableFrom(base) || base == Reading.class
                                ? AskKind.ALL.all()
                                : Measure.class.isAssignableFrom(base) ? MeasureKind.ALL.all() : List.of();
        return all.stream().map(Kinds.Kind::word).toList();
    }

    /** The known entry that comes nearest, and the others. */
    private static String nearest(UnrecognizedPropertyException e) {
        var known = new TreeSet<String>();
        e.getKnownPropertyIds().forEach(k -> known.add(String.valueOf(k)));
        String near = known.stream()
                .filter(k -> Near.letters(k, e.getPropertyName()) <= Math.max(1, k.length() / 3))
                .min((a, b) ->
                        Integer.compare(Near.letters(a, e.getPropertyName()), Near.letters(b, e.getPropertyName())))
                .orElse("");
        return (near.isEmpty() ? "" : "; is \"" + near + "\" meant?")
                + (known.isEmpty() ? "" : (near.isEmpty() ? "; known are " : " Known are ") + String.join(", ", known));
    }
}
