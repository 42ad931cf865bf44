package lane.reading;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import lane.evaluation.SheetFiles;
import lane.measure.Measured;
import lane.provenance.Provenance;
import lane.station.Enclosing;
import lane.station.Sheet;
import lane.station.Station;

/**
 * The stations that a number was read on, for its trail: their numbers as they stand in space, and the files of sheets.
 *
 * @param definitions by name
 */
public record Where(Map<String, Object> definitions, List<Provenance.Input> files) {
    public static final Where UNSAID = new Where(Map.of(), List.of());

    /** What leaves a surface around a region leaves that, and not the run. */
    Measured signed(Measured made) {
        boolean around = !definitions.isEmpty() && definitions.values().stream().allMatch(Enclosing.class::isInstance);
        return around ? made.signed(made.sign().replace("the run", "the region")) : made;
    }

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
