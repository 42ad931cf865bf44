package lane.cli;

import java.util.Optional;
import lane.base.LaneException;
import lane.base.Near;
import lane.base.Plain;
import lane.formats.table.TableReader;
import lane.reference.Table;
import lane.unit.Unit;

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
                .or(() -> written(table, name))
                .orElseThrow(() -> new LaneException("The table " + file + " has no column \"" + Plain.line(name) + "\""
                        + near(table, name) + "; its columns are " + Plain.names(table.headers()) + "."));
    }

    /** As it stands in the file, with its unit behind it. */
    private static Optional<String> written(Table table, String name) {
        return TableReader.column(name)
                .filter(c -> table.headers().contains(c.name())
                        && Unit.of(c.unit()).equals(Unit.of(table.unit(c.name(), ""))))
                .map(TableReader.Named::name);
    }

    private static String near(Table table, String name) {
        return Near.of(name, table.headers())
                .map(n -> " (\"" + n + "\" is meant?)")
                .orElse("");
    }
}
