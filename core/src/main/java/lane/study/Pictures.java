package lane.study;

import java.util.List;

/**
 * What was kept of how things are shown: the field picture, charts, and the ledger's tables.
 *
 * @param views by name
 * @param charts those that are not drawn as usual
 * @param ledger its formats and tables
 */
public record Pictures(List<SavedView> views, List<PictureNote> notes, List<ChartLook> charts, LedgerLook ledger) {
    public static final Pictures NONE = new Pictures(List.of(), List.of(), List.of(), LedgerLook.USUAL);

    public Pictures {
        views = views == null ? List.of() : List.copyOf(views);
        notes = notes == null ? List.of() : List.copyOf(notes);
        charts = charts == null ? List.of() : List.copyOf(charts);
        ledger = ledger == null ? LedgerLook.USUAL : ledger;
    }

    public Pictures withViews(List<SavedView> others) {
        return new Pictures(others, notes, charts, ledger);
    }

    public Pictures withNotes(List<PictureNote> others) {
        return new Pictures(views, others, charts, ledger);
    }

    public Pictures withCharts(List<ChartLook> others) {
        return new Pictures(views, notes, others, ledger);
    }

    public Pictures with(LedgerLook other) {
        return new Pictures(views, notes, charts, other);
    }
}
