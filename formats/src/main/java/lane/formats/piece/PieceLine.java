package lane.formats.piece;

import com.fasterxml.jackson.core.JacksonException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.MissingNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import lane.provenance.Provenance;
import lane.reading.Instant;
import lane.reading.Outcome;
import lane.reading.Scalar;
import lane.study.Answered;

/**
 * A line of a piece's file: what was answered at one time from the same files.
 *
 * @param time NaN where the run has none
 * @param answers whole ones, by key
 * @param instants numbers alone, by key
 */
record PieceLine(double time, List<Seen> files, Map<String, JsonNode> answers, Map<String, JsonNode> instants) {
    private static final JsonMapper MAPPER = new JsonMapper();

    /**
     * A file as it was read.
     *
     * @param changed when it was changed last, in nanoseconds
     */
    record Seen(String path, String sha256, long bytes, long changed) {
        Provenance.Input input() {
            return new Provenance.Input(path, sha256, bytes);
        }
    }

    /** The numbers of an instant; its files are those of the line. */
    private record Bare(double[] abscissa, double[] value, double[] half, String why) {}

    /** What belongs to an answer beside its outcome. */
    private record Beside(List<Scalar> beside) {}

    static PieceLine at(double time, List<Seen> files) {
        return new PieceLine(time, List.copyOf(files), new LinkedHashMap<>(), new LinkedHashMap<>());
    }

    List<Provenance.Input> inputs() {
        return files.stream().map(Seen::input).toList();
    }

    void add(String key, Answered made) {
        ObjectNode one = MAPPER.createObjectNode();
        one.set("outcome", AnswerJson.of(made.outcome()));
        one.set("beside", AnswerJson.of(new Beside(made.beside()), Beside.class));
        answers.put(key, one);
    }

    void add(String key, Instant made) {
        instants.put(key, AnswerJson.of(new Bare(made.abscissa(), made.value(), made.half(), made.why()), Bare.class));
    }

    /** @throws IllegalArgumentException for what another program wrote otherwise */
    Answered answer(String key) {
        JsonNode one = answers.getOrDefault(key, MissingNode.getInstance());
        return new Answered(
                AnswerJson.read(one.path("outcome"), Outcome.class),
                AnswerJson.read(one.path("beside"), Beside.class).beside,
                time,
                inputs());
    }

    /** @throws IllegalArgumentException for what another program wrote otherwise */
    Instant instant(String key) {
        Bare bare = AnswerJson.read(instants.getOrDefault(key, MissingNode.getInstance()), Bare.class);
        return new Instant(bare.abscissa, bare.value, bare.half, bare.why, inputs());
    }

    String text() {
        ObjectNode out = MAPPER.createObjectNode();
        out.set("time", AnswerJson.of(time, double.class));
        var all = out.putArray("files");
        files.forEach(f -> all.add(AnswerJson.of(f, Seen.class)));
        out.putObject("answers").setAll(answers);
        out.putObject("instants").setAll(instants);
        return out.toString();
    }

    /** A line as it was written; empty for one that was cut short. */
    static Optional<PieceLine> of(String text) {
        try {
            JsonNode node = MAPPER.readTree(text);
            List<Seen> files = new ArrayList<>();
            node.path("files").forEach(f -> files.add(AnswerJson.read(f, Seen.class)));
            PieceLine line = at(AnswerJson.read(node.path("time"), Double.class), files);
            node.path("answers").properties().forEach(e -> line.answers.put(e.getKey(), e.getValue()));
            node.path("instants").properties().forEach(e -> line.instants.put(e.getKey(), e.getValue()));
            return Optional.of(line);
        } catch (JacksonException | RuntimeException e) {
            return Optional.empty();
        }
    }
}
