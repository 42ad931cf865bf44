package lane.ledger;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.stream.IntStream;
import lane.base.Figures;
import lane.ledger.LedgerTable.Cell;
import lane.ledger.LedgerTable.Num;
import lane.ledger.LedgerTable.Row;
import lane.study.TableTemplate;

/** A table as its template wants it: which columns, in which order, under which names, to how many digits; lines in order. */
final class Arranged {
    private Arranged() {}

    /** A column of the whole table, and how it is shown. */
    private record Shown(int at, LedgerTable.Column column, int digits) {}

    static LedgerTable of(Wide all, TableTemplate template) {
        List<Shown> shown = shown(all, template);
        List<Row> rows = sorted(all, template.order()).stream()
                .map(cells -> new Row(shown.stream()
                        .map(s -> told(cells.get(s.at()), s.digits()))
                        .toList()))
                .toList();
        return new LedgerTable(
                all.name(),
                all.title(),
                all.note(),
                shown.stream().map(Shown::column).toList(),
                rows);
    }

    /** Columns that the study has no more, such as those of a lane that is gone, are left out. */
    private static List<Shown> shown(Wide all, TableTemplate template) {
        List<Shown> out = new ArrayList<>();
        if (template.columns().isEmpty()) {
            for (int i = 0; i < all.columns().size(); i++) {
                if (all.columns().get(i).usual()) {
                    out.add(new Shown(i, all.columns().get(i).column(), template.digits()));
                }
            }
            return out;
        }
        for (TableTemplate.Column c : template.columns()) {
            IntStream.range(0, all.columns().size())
                    .filter(i -> all.columns().get(i).column().name().equals(c.name()))
                    .findFirst()
                    .ifPresent(i -> {
                        LedgerTable.Column own = all.columns().get(i).column();
                        out.add(new Shown(
                                i,
                                c.title().isBlank() ? own : own.titled(c.title()),
                                c.digits() > 0 ? c.digits() : template.digits()));
                    });
        }
        return out;
    }

    private static Cell told(Cell cell, int digits) {
        return digits > 0 && cell instanceof Num n && Double.isFinite(n.value())
                ? new Num(n.value(), Figures.of(n.value(), digits).padded(n.value(), digits), n.mark())
                : cell;
    }

    private static List<List<Cell>> sorted(Wide all, TableTemplate.Order order) {
        int at = IntStream.range(0, all.columns().size())
                .filter(i -> all.columns().get(i).column().name().equals(order.column()))
                .findFirst()
                .orElse(-1);
        if (at < 0) {
            return all.rows();
        }
        boolean number = all.columns().get(at).column().number();
        Comparator<List<Cell>> by = number
                ? Comparator.comparingDouble(r -> ((Num) r.get(at)).value())
                : Comparator.comparing(r -> r.get(at).text(), String.CASE_INSENSITIVE_ORDER);
        Comparator<List<Cell>> wanted = order.descending() ? by.reversed() : by;
        // What has no number comes last either way.
        Comparator<List<Cell>> absent = Comparator.comparing(r -> number
                ? Double.isNaN(((Num) r.get(at)).value())
                : r.get(at).text().isBlank());
        return all.rows().stream().sorted(absent.thenComparing(wanted)).toList();
    }
}
