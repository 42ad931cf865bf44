package lane.reading;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import lane.evaluation.SheetFiles;
import lane.provenance.Provenance;
import lane.station.Sheet;
import lane.station.Station;

/**
 * The stations that a number was read on, for its trail: their numbers as they stand in space, and the files of sheets.
 *
 * @param definitions by name
 */
public record Where(Map<String, Object> definitions, List<Provenance.Input> files) {
    public static final Where UNSAID = new Where(Map.of(), List.of());

    static Where of(List<Station> stations, SheetFiles sheets) {
        Map<String, Object> definitions = new LinkedHashMap<>();
        List<Provenance.Input> files = new ArrayList<>();
        for (Station s : stations) {
            definitions.put(s.word() + " " + s.name(), s.shape());
            if (s.shape() instanceof Sheet sheet) {
                sheets.sheetInput(sheet.file()).ifPresent(files::add);
            }
        }
        return new Where(definitions, files);
    }
}
