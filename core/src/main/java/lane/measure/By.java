package lane.measure;

import lane.evaluation.StoredValues.At;

/** What a mean, an integral or a statistic takes for the values of a quantity; each may give another number. */
public enum By {
    /** Between the stored values, at the points of a rule that is exact for polynomials. */
    QUADRATURE("by quadrature", "quadrature", "by quadrature"),
    /** One value a cell, times the cell's size; over a surface, a face and its area. */
    SIZE("over cells by their size", "cells, by their size", "one value a cell, by its size"),
    /** One value a cell, each counting the same. */
    CELLS("over cells", "cells, each the same", "one value a cell, each counting the same"),
    /** One value a node, each counting the same. */
    NODES("over nodes", "nodes, each the same", "one value a node, each counting the same"),
    /** Values where they are stored, at nodes or in cells. */
    STORED("where it is stored", "where it is stored", "where it is stored");

    private final String word;
    private final String choice;
    private final String note;

    By(String word, String choice, String note) {
        this.word = word;
        this.choice = choice;
        this.note = note;
    }

    /** As it stands behind the name of a number. */
    public String word() {
        return word;
    }

    /** As it is chosen. */
    public String choice() {
        return choice;
    }

    /** As it stands beside a number. */
    public String note() {
        return note;
    }

    /** What there is one value of; of those that are taken one by one. */
    At at() {
        return this == NODES ? At.NODES : At.CELLS;
    }
}
