package lane.cli;

import lane.base.LaneException;
import lane.base.Near;
import lane.base.Plain;
import lane.formats.table.TableReader;
import lane.reference.Table;

/** A table that a verb is given, and its columns by name. */
final class OneTable {
    private OneTable() {}

    /** As it stands: whether the abscissa turns back does not matter here. */
    static Table read(String file) {
        return TableReader.values(OneRun.path(file), file);
    }

    static String column(Table table, String file, String name) {
        return table.headers().stream()
                .filter(h -> h.equals(name))
                .findFirst()
                .or(() -> table.headers().stream()
                        .filter(h -> h.equalsIgnoreCase(name.strip()))
                        .findFirst())
                .orElseThrow(() -> new LaneException("The table " + file + " has no column \"" + Plain.line(name) + "\""
                        + near(table, name) + "; its columns are " + Plain.names(table.headers()) + "."));
    }

    private static String near(Table table, String name) {
        return Near.of(name, table.headers())
                .map(n -> " (\"" + n + "\" is meant?)")
                .orElse("");
    }
}
