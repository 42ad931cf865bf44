package lane.formats.study;

import com.fasterxml.jackson.core.JacksonException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import lane.base.LaneException;
import lane.formats.io.AtomicFile;
import lane.study.UndoStack;

/** The way back of a study that has no place yet, kept with it: the latest states up to sixteen megabytes. */
public final class StudyHistory {
    private static final long MOST = 16L << 20;
    private static final JsonMapper MAPPER = new JsonMapper();

    private StudyHistory() {}

    /** @param way the states, the oldest first */
    public static void save(Path file, List<UndoStack.State> way) {
        List<String> texts = new ArrayList<>();
        long size = 0;
        int from = way.size();
        while (from > 0 && size < MOST) {
            String text = StudyJson.text(way.get(from - 1).study());
            size += text.length();
            texts.addFirst(text);
            from--;
        }
        ArrayNode all = MAPPER.createArrayNode();
        for (int i = 0; i < texts.size(); i++) {
            all.addObject().put("edit", way.get(from + i).edit()).put("study", texts.get(i));
        }
        try {
            AtomicFile.write(file, MAPPER.writeValueAsString(all));
        } catch (JacksonException e) {
            throw new IllegalStateException("it can always be written", e);
        }
    }

    /** The states that can be read, the oldest first; none where the file is missing or damaged. */
    public static List<UndoStack.State> load(Path file) {
        List<UndoStack.State> out = new ArrayList<>();
        try {
            for (JsonNode n : MAPPER.readTree(Files.readString(file))) {
                out.add(new UndoStack.State(
                        StudyJson.of(n.path("study").asText(), file.toString()),
                        n.path("edit").asText()));
            }
        } catch (IOException | LaneException e) {
            // The way back is a comfort; the study itself is kept apart.
            return out;
        }
        return out;
    }
}
