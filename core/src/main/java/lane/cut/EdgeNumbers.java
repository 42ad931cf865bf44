package lane.cut;

import java.util.Arrays;

/** Numbers edges in the order in which they are first met: a hash table of open addresses. */
final class EdgeNumbers {
    private long[] edges;
    private int[] table;
    private int size;

    EdgeNumbers(int expected) {
        edges = new long[Math.max(16, expected)];
        table = new int[Integer.highestOneBit(4 * edges.length)];
    }

    int size() {
        return size;
    }

    long edge(int number) {
        return edges[number];
    }

    int of(long edge) {
        int mask = table.length - 1;
        int at = slot(edge, mask);
        while (table[at] != 0) {
            if (edges[table[at] - 1] == edge) {
                return table[at] - 1;
            }
            at = at + 1 & mask;
        }
        if (size == edges.length) {
            edges = Arrays.copyOf(edges, 2 * size);
        }
        edges[size] = edge;
        table[at] = ++size;
        if (2 * size > table.length) {
            grow();
        }
        return size - 1;
    }

    private static int slot(long edge, int mask) {
        long h = edge * 0x9e3779b97f4a7c15L;
        return (int) (h ^ h >>> 32) & mask;
    }

    private void grow() {
        table = new int[2 * table.length];
        int mask = table.length - 1;
        for (int i = 0; i < size; i++) {
            int at = slot(edges[i], mask);
            while (table[at] != 0) {
                at = at + 1 & mask;
            }
            table[at] = i + 1;
        }
    }
}
