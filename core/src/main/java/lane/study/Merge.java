package lane.study;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import lane.quantity.Definitions;
import lane.quantity.Quantity;

/** Quantities of another study taken into one that has its own. */
public final class Merge {
    private Merge() {}

    /**
     * What was there, then what came and was not there. One that is there already, by name, formula and unit, is not
     * taken twice. One that means something else under a name that is taken comes under the next free name, and the
     * formulas that came with it follow; so no formula changes its meaning, neither of those there nor of those that came.
     */
    public static List<Quantity> quantities(List<Quantity> have, List<Quantity> come) {
        List<Quantity> next = come;
        // A new name rewrites the formulas that use it, and these may then differ from their namesakes as well.
        for (Optional<Quantity> other = other(have, next); other.isPresent(); other = other(have, next)) {
            Quantity q = other.get();
            next = new Definitions(next).renamed(q, free(q.name(), have, next));
        }
        List<Quantity> out = new ArrayList<>(have);
        for (Quantity q : next) {
            if (out.stream().noneMatch(h -> h.name().equals(q.name()))) {
                String id =
                        Study.freshId(q.name(), out.stream().map(Quantity::id).toList());
                out.add(new Quantity(id, q.name(), q.formula(), q.unit(), q.note()));
            }
        }
        return out;
    }

    private static Optional<Quantity> other(List<Quantity> have, List<Quantity> next) {
        return next.stream()
                .filter(q -> have.stream()
                        .anyMatch(h -> h.name().equals(q.name())
                                && !(h.formula().equals(q.formula()) && h.unit().equals(q.unit()))))
                .findFirst();
    }

    private static String free(String name, List<Quantity> have, List<Quantity> next) {
        String tried = name;
        for (int n = 2; named(have, tried) || named(next, tried); n++) {
            tried = name + " " + n;
        }
        return tried;
    }

    private static boolean named(List<Quantity> quantities, String name) {
        return quantities.stream().anyMatch(q -> q.name().equals(name));
    }
}
