package lane.formats.vtk;

import com.fasterxml.jackson.core.JacksonException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.json.JsonMapper;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import lane.base.Work;
import lane.field.TimeSelector;
import lane.formats.grid.Dataset;
import lane.formats.grid.Nested;
import lane.formats.grid.Opening;
import lane.formats.io.FileErrors;
import lane.formats.io.FileHash;
import lane.formats.io.FormatError;

/**
 * Files named with their times in JSON, as solvers write it beside legacy files, which have no place for a time:
 * {@code {"files": [{"name": "out_01.vtk", "time": 0.5}, …]}}.
 */
public final class TimeIndex {
    private static final JsonMapper MAPPER = new JsonMapper();
    /** Bytes of an index of a hundred thousand files, and more. */
    private static final long MOST = 64L << 20;

    private TimeIndex() {}

    /** @param nested reads the file of the time */
    public static Dataset read(Path file, TimeSelector moment, Opening opening, Work work, Nested nested) {
        return FileErrors.of(file, () -> VtkSet.overTime(named(file), file, moment, opening, work, nested));
    }

    /** The files of each time. */
    public static Map<Double, List<Path>> files(Path file) {
        return FileErrors.of(file, () -> VtkSet.files(named(file), file));
    }

    private static List<XmlParts.Leaf> named(Path file) {
        try {
            if (Files.size(file) > MOST) {
                throw FormatError.tooLarge("it is larger than an index of files can be");
            }
            JsonNode all = MAPPER.readTree(file.toFile()).path("files");
            List<XmlParts.Leaf> out = new ArrayList<>();
            for (JsonNode one : all) {
                JsonNode name = one.path("name");
                JsonNode time = one.path("time");
                if (!name.isTextual() || !time.isNumber()) {
                    throw new FormatError("its file number " + (out.size() + 1) + " has no name or no time");
                }
                out.add(new XmlParts.Leaf(List.of(), "", name.asText(), time.asDouble()));
            }
            if (out.isEmpty()) {
                throw new FormatError("it names no file; a list \"files\" with a name and a time of each is expected");
            }
            return out;
        } catch (JacksonException e) {
            var at = e.getLocation();
            throw new FormatError(
                    at == null ? "its JSON is damaged" : "its JSON is damaged in line " + Math.max(1, at.getLineNr()));
        } catch (IOException e) {
            throw FileHash.unreadable(file, e);
        }
    }
}
