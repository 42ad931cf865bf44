package lane.ledger;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import lane.base.Plain;
import lane.reading.Reading;
import lane.study.Results;
import lane.study.Source;
import lane.study.Study;
import lane.study.TableTemplate;
import lane.study.TableTemplate.Content;

/** The tables for people and programs that a study's results give, as they were set up or as is usual. */
public final class LedgerTables {
    /** Before the reading's key in the name of a table of points. */
    public static final String CURVE = "profile-";

    private LedgerTables() {}

    /** Those of the study, each under a name of its own. */
    public static List<LedgerTable> of(Results results, Ledger ledger) {
        List<LedgerTable> out = new ArrayList<>();
        Set<String> taken = new HashSet<>();
        for (TableTemplate t : results.study().pictures().ledger().of(results.study())) {
            of(results, ledger, t).forEach(made -> out.add(named(made, taken)));
        }
        return out;
    }

    /** What one template gives: a table, or one for each curve. */
    public static List<LedgerTable> of(Results results, Ledger ledger, TableTemplate template) {
        return full(results, ledger, template).stream()
                .map(t -> Arranged.of(t, template))
                .toList();
    }

    /** All columns that a template of this content can have, whether they are usually shown or not. */
    public static List<LedgerTable.Column> columns(Results results, Ledger ledger, TableTemplate template) {
        List<Wide> all = full(results, ledger, template);
        Set<String> seen = new HashSet<>();
        return all.stream()
                .flatMap(w -> w.columns().stream())
                .map(Wide.Column::column)
                .filter(c -> seen.add(c.name()))
                .toList();
    }

    /** Names of the columns that are shown where nobody chose any. */
    public static List<String> usual(Results results, Ledger ledger, TableTemplate template) {
        return full(results, ledger, template).stream()
                .flatMap(w -> w.columns().stream())
                .filter(Wide.Column::usual)
                .map(c -> c.column().name())
                .distinct()
                .toList();
    }

    /** The readings that a template may tell of. */
    public static List<Reading> readings(Study study, Content of) {
        return study.readings().stream().filter(r -> belongs(r, of)).toList();
    }

    private static boolean belongs(Reading reading, Content of) {
        boolean over = reading.curve()
                && (reading.ask().overTime() || reading.ask().clock().isPresent());
        return switch (of) {
            case NUMBERS, CHECKS -> true;
            case TALLIES -> !reading.ask().balances();
            case BALANCES -> reading.ask().balances();
            case PROFILES -> reading.curve() && !over;
            case HISTORIES -> over;
        };
    }

    private static List<Wide> full(Results results, Ledger ledger, TableTemplate template) {
        List<Reading> told = readings(results.study(), template.of()).stream()
                .filter(r ->
                        template.readings().isEmpty() || template.readings().contains(r.id()))
                .toList();
        Set<String> keys = new HashSet<>(told.stream().map(Reading::id).toList());
        return switch (template.of()) {
            case NUMBERS, TALLIES, BALANCES -> List.of(NumberTable.of(results, ledger, template, keys));
            case CHECKS -> List.of(CheckTable.of(results, template, keys));
            case PROFILES, HISTORIES ->
                told.stream()
                        .flatMap(r -> CurveTable.beside(results, r, template).stream())
                        .toList();
        };
    }

    private static LedgerTable named(LedgerTable table, Set<String> taken) {
        String stem = Plain.fileName(table.name());
        String name = stem;
        for (int i = 2; !taken.add(name.toLowerCase(Locale.ROOT)); i++) {
            name = stem + "-" + i;
        }
        return new LedgerTable(name, table.title(), table.note(), table.columns(), table.rows());
    }

    /** The lanes that have something to tell, in the order of the study. */
    static List<Source> lanes(Results results, java.util.function.Predicate<String> tells) {
        return results.study().sources().stream()
                .filter(s -> tells.test(s.id()))
                .toList();
    }

    /** The lane that differences are taken against, if the study has it. */
    static Optional<Source> datum(Results results) {
        return Stream.of(results.study().datum())
                .filter(d -> !d.isBlank())
                .flatMap(d -> results.study().source(d).stream())
                .findFirst();
    }

    static String name(Results results, String lane) {
        return results.study().source(lane).map(Source::name).orElse(lane);
    }

    /** The points of a reading's curves, one lane after the other; no rows where there is no curve. */
    public static LedgerTable curve(Results results, Reading reading) {
        return CurveTable.points(results, reading);
    }
}
