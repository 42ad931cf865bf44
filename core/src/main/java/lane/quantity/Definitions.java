package lane.quantity;

import java.util.Collections;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import lane.formula.FormulaException;
import lane.formula.Node;
import lane.formula.Parser;
import lane.formula.Uses;
import org.jspecify.annotations.Nullable;

/**
 * The quantities of a study as a graph: who uses whom. Formulas that cannot be read are there too; they use nothing.
 */
public final class Definitions {
    private final Map<String, Quantity> byKey = new HashMap<>();
    private final Map<String, Quantity> byName = new HashMap<>();
    private final Map<String, Node> trees = new HashMap<>();
    private final List<Quantity> all;
    private final Map<Quantity, Optional<Node>> others = new ConcurrentHashMap<>();
    private final Map<Quantity, List<Quantity>> needs = new ConcurrentHashMap<>();
    private final Map<Quantity, Set<String>> leaves = new ConcurrentHashMap<>();
    private final Map<Quantity, Boolean> beyond = new ConcurrentHashMap<>();

    public Definitions(List<Quantity> quantities) {
        all = List.copyOf(quantities);
        for (Quantity q : quantities) {
            byKey.putIfAbsent(q.id(), q);
            byName.putIfAbsent(q.name(), q);
            trees.put(q.id(), parsed(q.formula()).orElse(null));
        }
    }

    public List<Quantity> all() {
        return all;
    }

    /** The quantity of a name, or else of a key. */
    public Optional<Quantity> named(String name) {
        return Optional.ofNullable(byName.getOrDefault(name, byKey.get(name)));
    }

    /** The tree of a quantity; null where its formula cannot be read. */
    public @Nullable Node tree(Quantity q) {
        Node known = trees.get(q.id());
        if (known != null && q.equals(byKey.get(q.id()))) {
            return known;
        }
        return others.computeIfAbsent(q, o -> parsed(o.formula())).orElse(null);
    }

    private static Optional<Node> parsed(String formula) {
        try {
            return Optional.of(Parser.parse(formula));
        } catch (FormulaException e) {
            // Whoever computes it is told why.
            return Optional.empty();
        }
    }

    /** Names that a quantity's formula has itself, definitions or not. */
    public Set<String> names(Quantity q) {
        Node tree = tree(q);
        return tree == null ? Set.of() : Uses.names(tree);
    }

    /** The quantity and all that it needs, each once, what is needed first. */
    public List<Quantity> needs(Quantity q) {
        return needs.computeIfAbsent(q, o -> {
            var out = new LinkedHashSet<Quantity>();
            needs(o, out, new LinkedHashSet<>());
            return List.copyOf(out);
        });
    }

    private void needs(Quantity q, Set<Quantity> out, Set<String> open) {
        if (!open.add(q.id())) {
            return;
        }
        String self = q.self();
        for (String name : names(q)) {
            named(name)
                    .filter(o -> !name.equals(self) && !o.id().equals(q.id()))
                    .ifPresent(o -> needs(o, out, open));
        }
        out.add(q);
    }

    /** Names in the quantity and all that it needs that stand for no other quantity: fields, readings, what is built in. */
    public Set<String> leaves(Quantity q) {
        Set<String> known = leaves.get(q);
        if (known != null) {
            return known;
        }
        var out = new LinkedHashSet<String>();
        for (Quantity n : needs(q)) {
            String self = n.self();
            for (String name : names(n)) {
                Optional<Quantity> other = named(name);
                if (name.equals(self) || other.isEmpty() || other.get().id().equals(n.id())) {
                    out.add(name);
                }
            }
        }
        known = Collections.unmodifiableSet(out);
        leaves.put(q, known);
        return known;
    }

    /** Whether the quantity or what it needs looks beyond the place: stations, lanes, times, tables, gradients. */
    public boolean beyond(Quantity q) {
        Boolean known = beyond.get(q);
        if (known == null) {
            known = needs(q).stream().map(this::tree).anyMatch(t -> t != null && Uses.beyond(t));
            beyond.put(q, known);
        }
        return known;
    }

    /** Quantities whose own formula has this one. */
    public List<Quantity> usersOf(Quantity q) {
        return all.stream()
                .filter(o -> !o.id().equals(q.id())
                        && names(o).stream().anyMatch(n -> named(n).map(x -> x.id().equals(q.id()))
                                .orElse(false)))
                .toList();
    }

    /** The quantities with one of them renamed, in its users' formulas too. */
    public List<Quantity> renamed(Quantity q, String to) {
        List<Quantity> users = usersOf(q);
        return all.stream()
                .map(o -> {
                    if (o.id().equals(q.id())) {
                        return o.named(to);
                    }
                    return users.contains(o) ? o.by(Uses.renamed(o.formula(), Uses.Kind.VALUE, q.name(), to)) : o;
                })
                .toList();
    }
}
