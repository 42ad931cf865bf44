package lane.study;

import java.util.ArrayList;
import java.util.List;

/**
 * How the ledger is written. It changes no number.
 *
 * @param formats words of those that are written beside what every ledger has
 * @param tables as they were set up; empty for the usual ones
 */
public record LedgerLook(List<String> formats, List<TableTemplate> tables) {
    public static final LedgerLook USUAL = new LedgerLook(List.of(), List.of());

    public LedgerLook {
        formats = formats == null ? List.of() : List.copyOf(formats);
        tables = tables == null ? List.of() : List.copyOf(tables);
    }

    public LedgerLook as(List<String> others) {
        return new LedgerLook(others, tables);
    }

    public LedgerLook with(List<TableTemplate> others) {
        return new LedgerLook(formats, others);
    }

    /** The tables that are written: those that were set up, or what suits the study. */
    public List<TableTemplate> of(Study study) {
        if (!tables.isEmpty()) {
            return tables;
        }
        boolean balances = study.readings().stream().anyMatch(r -> r.ask().balances());
        List<TableTemplate> usual = new ArrayList<>();
        usual.add(TableTemplate.of(balances ? TableTemplate.Content.TALLIES : TableTemplate.Content.NUMBERS));
        if (balances) {
            usual.add(TableTemplate.of(TableTemplate.Content.BALANCES));
        }
        if (!study.checks().isEmpty()) {
            usual.add(TableTemplate.of(TableTemplate.Content.CHECKS));
        }
        return List.copyOf(usual);
    }
}
