package lane.ledger;

import java.util.List;
import lane.ledger.LedgerTable.Cell;

/** A table with all columns that it can have, before it is arranged. */
record Wide(String name, String title, String note, List<Column> columns, List<List<Cell>> rows) {
    /** @param usual whether it is shown where nobody chose columns */
    record Column(LedgerTable.Column column, boolean usual) {}
}
