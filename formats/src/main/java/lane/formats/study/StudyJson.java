package lane.formats.study;

import com.fasterxml.jackson.annotation.JsonSetter;
import com.fasterxml.jackson.annotation.Nulls;
import com.fasterxml.jackson.core.JacksonException;
import com.fasterxml.jackson.core.StreamReadFeature;
import com.fasterxml.jackson.core.json.JsonReadFeature;
import com.fasterxml.jackson.databind.DeserializationFeature;
import com.fasterxml.jackson.databind.JsonMappingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.MapperFeature;
import com.fasterxml.jackson.databind.SerializationFeature;
import com.fasterxml.jackson.databind.cfg.CoercionAction;
import com.fasterxml.jackson.databind.cfg.CoercionInputShape;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.jsontype.NamedType;
import com.fasterxml.jackson.databind.node.ObjectNode;
import com.fasterxml.jackson.databind.type.LogicalType;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import lane.base.Fault;
import lane.base.LaneException;
import lane.base.Plain;
import lane.check.RuleKind;
import lane.formats.io.AtomicFile;
import lane.formats.io.FileHash;
import lane.formats.io.FileStamp;
import lane.measure.MeasureKind;
import lane.reading.AskKind;
import lane.station.ShapeKind;
import lane.study.Study;

/**
 * The study as JSON: stable order, one schema version, described by docs/study.schema.json so that a study can be
 * written by hand or by a script. Texts and lists that are left out are taken as empty.
 */
public final class StudyJson {
    private static final long MOST_BYTES = 64L << 20;

    private static final JsonMapper MAPPER = StudyMixIns.on(JsonMapper.builder())
            .enable(SerializationFeature.INDENT_OUTPUT)
            .enable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES)
            .enable(DeserializationFeature.FAIL_ON_NULL_FOR_PRIMITIVES)
            .enable(DeserializationFeature.FAIL_ON_NUMBERS_FOR_ENUMS)
            .enable(StreamReadFeature.STRICT_DUPLICATE_DETECTION)
            .disable(DeserializationFeature.ACCEPT_FLOAT_AS_INT)
            .disable(MapperFeature.ALLOW_COERCION_OF_SCALARS)
            .withCoercionConfig(LogicalType.Textual, c -> c.setCoercion(CoercionInputShape.Integer, CoercionAction.Fail)
                    .setCoercion(CoercionInputShape.Float, CoercionAction.Fail)
                    .setCoercion(CoercionInputShape.Boolean, CoercionAction.Fail))
            .enable(MapperFeature.ACCEPT_CASE_INSENSITIVE_ENUMS)
            .enable(JsonReadFeature.ALLOW_JAVA_COMMENTS)
            .withCoercionConfig(LogicalType.Enum, c -> c.setCoercion(CoercionInputShape.Integer, CoercionAction.Fail))
            .withConfigOverride(String.class, o -> o.setSetterInfo(JsonSetter.Value.forValueNulls(Nulls.AS_EMPTY)))
            .withConfigOverride(List.class, o -> o.setSetterInfo(JsonSetter.Value.forValueNulls(Nulls.AS_EMPTY)))
            .withConfigOverride(Map.class, o -> o.setSetterInfo(JsonSetter.Value.forValueNulls(Nulls.AS_EMPTY)))
            .build();

    static {
        AskKind.ALL.all().forEach(k -> MAPPER.registerSubtypes(new NamedType(k.type(), k.word())));
        ShapeKind.ALL.all().forEach(k -> MAPPER.registerSubtypes(new NamedType(k.type(), k.word())));
        MeasureKind.ALL.all().forEach(k -> MAPPER.registerSubtypes(new NamedType(k.type(), k.word())));
        RuleKind.ALL.all().forEach(k -> MAPPER.registerSubtypes(new NamedType(k.type(), k.word())));
    }

    private static final Pattern KEY = Pattern.compile("[\\p{L}\\p{N}_][\\p{L}\\p{N}\\p{M} ._+-]{0,119}");

    private StudyJson() {}

    public static String text(Study study) {
        try {
            return MAPPER.writeValueAsString(study) + "\n";
        } catch (JacksonException e) {
            throw new IllegalStateException("a study can always be written", e);
        }
    }

    /** A part of a study by itself, with what kind it is; empty for what is none. */
    public static Optional<String> part(Object part) {
        if (part instanceof List<?> all) {
            var out = new StringBuilder();
            for (Object one : all) {
                Optional<String> told = part(one);
                if (told.isEmpty()) {
                    return told;
                }
                out.append(told.get()).append(';');
            }
            return Optional.of(out.toString());
        }
        try {
            return Optional.of(part.getClass().getName() + MAPPER.writeValueAsString(part));
        } catch (JacksonException e) {
            return Optional.empty();
        }
    }

    /** Writes the study atomically. */
    public static void save(Study study, Path file) {
        AtomicFile.write(file, text(study));
    }

    /** @throws LaneException with the place in the file when it is no study of this version */
    public static Study load(Path file) {
        try {
            if (FileStamp.of(file).size() > MOST_BYTES) {
                throw new LaneException(
                        "The study " + file + " is larger than 64 MB; a study holds definitions, not data.");
            }
            return of(Files.readString(file), file.toString());
        } catch (IOException e) {
            throw FileHash.unreadable(file, e);
        }
    }

    /** @param where named in errors */
    public static Study of(String text, String where) {
        String file = Plain.line(where);
        JsonNode tree;
        try {
            tree = MAPPER.reader()
                    .with(DeserializationFeature.FAIL_ON_TRAILING_TOKENS)
                    .readTree(text);
        } catch (JacksonException e) {
            throw StudyFault.of(e, file);
        }
        if (!tree.isObject()) {
            throw new LaneException(
                    Fault.DAMAGED, "The study " + file + " is no study: an object { … } belongs there.");
        }
        StudyFault.numbers(tree, "", file);
        JsonNode given = tree.path("version");
        int version = given.isIntegralNumber() ? given.asInt(-1) : -1;
        if (version >= 1 && version < Study.VERSION && tree instanceof ObjectNode root) {
            Migration.toNewest(root, version);
        } else if (version != Study.VERSION) {
            throw new LaneException("The study " + file
                    + (given.isMissingNode() ? " gives no version" : " has version " + Plain.quoted(given.asText()))
                    + "; this program reads versions 1 to " + Study.VERSION + ".");
        }
        try {
            Study study = MAPPER.treeToValue(tree, Study.class);
            Complete.check(study, "", file);
            keys(study, file);
            return study;
        } catch (JsonMappingException e) {
            throw StudyFault.of(e, tree, file);
        } catch (JacksonException e) {
            throw StudyFault.of(e, file);
        }
    }

    /** Keys name files and places in messages, so they hold nothing that acts there. */
    private static void keys(Study study, String where) {
        Stream.of(
                        study.sources().keys(),
                        study.quantities().keys(),
                        study.frames().keys(),
                        study.stations().keys(),
                        study.readings().keys(),
                        study.checks().keys())
                .flatMap(List::stream)
                .filter(k -> !KEY.matcher(k).matches())
                .findFirst()
                .ifPresent(k -> {
                    throw new LaneException(
                            Fault.DAMAGED,
                            "The study " + where + " has the id " + Plain.quoted(k)
                                    + "; an id is of letters, digits, spaces, hyphens, dots, pluses and underlines, begins with a"
                                    + " letter, digit or underline and has at most 120 of them.");
                });
    }
}
