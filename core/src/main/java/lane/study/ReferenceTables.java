package lane.study;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import lane.base.LaneException;
import lane.formula.Scope;
import lane.formula.Type;
import lane.provenance.Provenance;
import lane.reference.Table;
import lane.unit.Unit;

/** Tables of a study's references, as formulas name them. */
final class ReferenceTables {
    private final Study study;
    private final Library library;

    ReferenceTables(Study study, Library library) {
        this.study = study;
        this.library = library;
    }

    /** Those that can be read, so that a changed file counts. */
    List<Table> all() {
        List<Table> out = new ArrayList<>();
        for (Source s : study.sources()) {
            for (String file : s instanceof Source.Reference r ? r.files() : List.<String>of()) {
                try {
                    out.add(library.table(file, study.recipes()));
                } catch (LaneException e) {
                    // Whoever reads it is told why it cannot be.
                }
            }
        }
        return out;
    }

    /** @param column header; empty for the second */
    Scope.Table columns(String name, String column) {
        return columns(library.table(file(name), study.recipes()), column);
    }

    String file(String name) {
        return study.sources().stream()
                .filter(Source.Reference.class::isInstance)
                .map(Source.Reference.class::cast)
                .filter(s -> s.name().equals(name) || s.id().equals(name))
                .flatMap(s -> s.files().stream())
                .findFirst()
                .or(() -> study.sources().stream()
                        .filter(Source.Reference.class::isInstance)
                        .flatMap(s -> ((Source.Reference) s).files().stream())
                        .filter(f -> f.equals(name)
                                || f.replaceAll(".*/", "")
                                        .replaceAll("\\.[^.]*$", "")
                                        .equals(name))
                        .findFirst())
                .orElseThrow(() -> new Scope.Trouble("There is no table \"" + name
                        + "\"; name a reference of the study, or one of its files without its ending."));
    }

    private static Scope.Table columns(Table table, String column) {
        List<String> names = table.headers();
        if (names.size() < 2) {
            throw new Scope.Trouble("The table has fewer than two columns of numbers.");
        }
        String value = column.isEmpty() ? names.get(1) : column;
        Unit xUnit =
                table.unit(names.getFirst(), "").isEmpty() ? Unit.UNKNOWN : Unit.of(table.unit(names.getFirst(), ""));
        Unit yUnit = table.unit(value, "").isEmpty() ? Unit.UNKNOWN : Unit.of(table.unit(value, ""));
        double[] x = table.column(names.getFirst());
        double[] y = table.column(value);
        int[] rows = java.util.stream.IntStream.range(0, table.rows())
                .filter(i -> Double.isFinite(x[i]) && Double.isFinite(y[i]))
                .boxed()
                .sorted(java.util.Comparator.comparingDouble(i -> x[i]))
                .mapToInt(i -> i)
                .toArray();
        if (rows.length == 0) {
            throw new Scope.Trouble("The table has no row with numbers in both columns.");
        }
        return new Scope.Table(
                Arrays.stream(rows).mapToDouble(i -> xUnit.toSi(x[i])).toArray(),
                Arrays.stream(rows).mapToDouble(i -> yUnit.toSi(y[i])).toArray(),
                Type.of(1, xUnit),
                Type.of(1, yUnit));
    }

    List<Provenance.Input> input(String file) {
        try {
            return List.of(library.table(file, study.recipes()).input());
        } catch (LaneException e) {
            // Whoever reads it is told why it cannot be.
            return List.of();
        }
    }
}
