package lane.formats.study;

import com.fasterxml.jackson.core.JsonGenerator;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.databind.DeserializationContext;
import com.fasterxml.jackson.databind.JsonDeserializer;
import com.fasterxml.jackson.databind.JsonMappingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.JsonSerializer;
import com.fasterxml.jackson.databind.Module;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.SerializerProvider;
import com.fasterxml.jackson.databind.deser.ResolvableDeserializer;
import com.fasterxml.jackson.databind.module.SimpleModule;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.function.Function;
import lane.base.LaneException;
import lane.check.Check;
import lane.check.Decision;
import lane.check.Doubts;
import lane.check.Rule;
import lane.reading.Ask;
import lane.reading.Reading;
import lane.station.Shape;
import lane.station.Station;
import org.jspecify.annotations.Nullable;

/**
 * Identity and content apart in the program, on one level in the file: {@code {"kind": "tally", "id": ..., "name": ...,
 * "stations": ..., "measure": ..., "unit": ...}} is easier to write by hand than an object within an object.
 */
final class Flat {
    /** How many of the names stand before the content. */
    private static final int FIRST = 2;

    private Flat() {}

    static Module module() {
        var module = new SimpleModule("flat");
        add(
                module,
                Reading.class,
                Ask.class,
                List.of("id", "name", "unit"),
                r -> new Object[] {r.id(), r.name(), r.unit()},
                Reading::ask,
                (own, ask) -> new Reading(own.text("id"), own.text("name"), own.text("unit"), ask));
        add(
                module,
                Station.class,
                Shape.class,
                List.of("id", "name", "frame"),
                s -> new Object[] {s.id(), s.name(), s.frame().isBlank() ? null : s.frame()},
                Station::shape,
                (own, shape) -> new Station(own.text("id"), own.text("name"), own.text("frame"), shape));
        add(
                module,
                Check.class,
                Rule.class,
                List.of("id", "reading", "judged", "group", "uncertainty", "decision"),
                c -> new Object[] {
                    c.id(),
                    c.reading(),
                    c.judged(),
                    c.group().isBlank() ? null : c.group(),
                    c.doubts().usual() ? null : c.doubts(),
                    c.decision()
                },
                Check::rule,
                (own, rule) -> {
                    Doubts doubts = own.of("uncertainty", Doubts.class);
                    return new Check(
                            own.text("id"),
                            own.text("reading"),
                            rule,
                            own.texts("judged"),
                            doubts == null ? Doubts.USUAL : doubts,
                            own.text("group"),
                            own.of("decision", Decision.class));
                });
        return module;
    }

    /** The identity of something as it was read. */
    private record Own(ObjectNode node, JsonParser parser) {
        /** A text; blank where it is left out. */
        String text(String name) throws JsonMappingException {
            JsonNode found = node.get(name);
            return found == null || found.isNull() ? "" : text(name, found);
        }

        List<String> texts(String name) throws JsonMappingException {
            JsonNode found = node.get(name);
            if (found == null || found.isNull()) {
                return List.of();
            }
            if (!found.isArray()) {
                throw wrong(name, found, "a list of texts");
            }
            List<String> out = new ArrayList<>();
            for (JsonNode one : found) {
                out.add(text(name, one));
            }
            return out;
        }

        /** Something with parts of its own; null where it is left out. */
        <T> @Nullable T of(String name, Class<T> type) throws JsonMappingException {
            JsonNode found = node.get(name);
            if (found == null || found.isNull()) {
                return null;
            }
            try (JsonParser of = found.traverse(parser.getCodec())) {
                return of.getCodec().readValue(of, type);
            } catch (JsonMappingException e) {
                e.prependPath(node, name);
                throw e;
            } catch (IOException e) {
                throw JsonMappingException.from(parser, String.valueOf(e.getMessage()), e);
            }
        }

        private String text(String name, JsonNode found) throws JsonMappingException {
            if (!found.isTextual()) {
                throw wrong(name, found, "a text");
            }
            return found.asText();
        }

        private JsonMappingException wrong(String name, JsonNode found, String wanted) {
            String said = StudyFault.came(found) + "; " + wanted + " belongs there.";
            var out = JsonMappingException.from(parser, said, new LaneException(said));
            out.prependPath(node, name);
            return out;
        }
    }

    /** Puts identity and content together again. */
    @FunctionalInterface
    private interface Make<T, C> {
        T of(Own own, C content) throws JsonMappingException;
    }

    private static <T, C> void add(
            SimpleModule module,
            Class<T> type,
            Class<C> content,
            List<String> names,
            Function<T, Object[]> identity,
            Function<T, C> part,
            Make<T, C> make) {
        module.addSerializer(type, new JsonSerializer<T>() {
            @Override
            public void serialize(T value, JsonGenerator out, SerializerProvider provider) throws IOException {
                ObjectNode inner = ((ObjectMapper) out.getCodec()).valueToTree(part.apply(value));
                Object[] own = identity.apply(value);
                out.writeStartObject();
                out.writeStringField("kind", inner.remove("kind").asText());
                // The unit or what is judged stands last, as it does when one writes it; what is not there is not
                // written.
                for (int i = 0; i < own.length; i++) {
                    if (i == FIRST) {
                        for (var field : inner.properties()) {
                            out.writeObjectField(field.getKey(), field.getValue());
                        }
                    }
                    if (own[i] != null) {
                        out.writeObjectField(names.get(i), own[i]);
                    }
                }
                out.writeEndObject();
            }
        });
        module.addDeserializer(type, new Reader<>(content, names, make));
    }

    /** Takes identity and content apart. */
    private static final class Reader<T, C> extends JsonDeserializer<T> implements ResolvableDeserializer {
        private final Class<C> content;
        private final List<String> names;
        private final Make<T, C> make;
        private @Nullable JsonDeserializer<Object> inner;

        Reader(Class<C> content, List<String> names, Make<T, C> make) {
            this.content = content;
            this.names = names;
            this.make = make;
        }

        @Override
        public void resolve(DeserializationContext context) throws JsonMappingException {
            inner = context.findRootValueDeserializer(context.constructType(content));
        }

        @Override
        public T deserialize(JsonParser parser, DeserializationContext context) throws IOException {
            JsonNode tree = parser.readValueAsTree();
            if (!(tree instanceof ObjectNode whole)) {
                String said = StudyFault.came(tree) + "; an object in braces belongs there.";
                throw JsonMappingException.from(parser, said, new LaneException(said));
            }
            // The tree is somebody's who may have to say what stands in it.
            ObjectNode node = whole.objectNode();
            node.setAll(whole);
            ObjectNode own = node.objectNode();
            for (String name : names) {
                JsonNode found = node.remove(name);
                if (found != null) {
                    own.set(name, found);
                }
            }
            try {
                try (JsonParser of = node.traverse(parser.getCodec())) {
                    of.nextToken();
                    Object read = Objects.requireNonNull(inner).deserialize(of, context);
                    return make.of(new Own(own, parser), content.cast(read));
                }
            } catch (LaneException e) {
                throw JsonMappingException.from(parser, e.getMessage(), e);
            }
        }
    }
}
