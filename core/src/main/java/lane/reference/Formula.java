package lane.reference;

import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import lane.base.LaneException;
import lane.formula.Bare;
import lane.formula.Compiler;
import lane.formula.FormulaException;
import lane.formula.Meaning;
import lane.formula.Node;
import lane.formula.Parser;
import lane.formula.Program;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/**
 * A formula of the study's language whose names stand for plain numbers in SI units, as theories and hand calculations
 * have them: no units are checked but those that are written, which are turned into SI.
 */
public final class Formula {
    private final String text;
    private final Set<String> names = new LinkedHashSet<>();
    private final Program program;

    private Formula(String text) {
        this.text = text;
        try {
            Node node = Parser.parse(text);
            collect(node);
            Compiler.Compiled made = Compiler.compile(node, new Bare() {
                @Override
                public @Nullable Meaning meaning(String name) {
                    return name.equals("pi") ? null : new Meaning.Stored(name, 1, Unit.UNKNOWN);
                }
            });
            if (!made.type().number()) {
                throw new LaneException(
                        "The formula \"" + text + "\" is " + made.type().word() + " and no number.");
            }
            program = made.program();
        } catch (FormulaException e) {
            throw new LaneException(
                    "The formula \"" + text + "\" cannot be used, see character " + (e.from() + 1) + ": "
                            + e.getMessage(),
                    e);
        }
    }

    private void collect(Node node) {
        if (node instanceof Node.Name n && !n.name().equals("pi")) {
            names.add(n.name());
        }
        node.parts().forEach(this::collect);
    }

    /** @throws LaneException with the place and what is wrong there */
    public static Formula of(String text) {
        return new Formula(text);
    }

    /** The names it uses, functions and {@code pi} left out. */
    public Set<String> names() {
        return Set.copyOf(names);
    }

    public String text() {
        return text;
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof Formula f && text.equals(f.text);
    }

    @Override
    public int hashCode() {
        return text.hashCode();
    }

    /**
     * The formula at many places.
     *
     * @param known values of names that are the same everywhere
     * @param columns {@code n} values of the other names
     * @throws LaneException when a name has no value
     */
    public void values(Map<String, Double> known, Map<String, double[]> columns, int n, double[] into) {
        Program.Bench bench = program.bench(Math.min(n, Program.BLOCK));
        for (int from = 0; from < n; from += Program.BLOCK) {
            int many = Math.min(Program.BLOCK, n - from);
            for (int i = 0; i < program.leaves().size(); i++) {
                String name = (String) program.leaves().get(i).key();
                double[] column = columns.get(name);
                if (column != null) {
                    System.arraycopy(column, from, bench.leaf(i), 0, many);
                } else if (known.containsKey(name)) {
                    java.util.Arrays.fill(bench.leaf(i), 0, many, known.get(name));
                } else {
                    throw lacks(name);
                }
            }
            bench.run(many);
            System.arraycopy(bench.result(0), 0, into, from, many);
        }
    }

    private LaneException lacks(String name) {
        return new LaneException("The formula \"" + text + "\" uses \"" + name
                + "\", which has no value here; add it to the constants.");
    }

    /** @throws LaneException when a name has no value */
    public double value(Map<String, Double> values) {
        Program.Bench bench = program.bench(1);
        for (String name : names) {
            if (!values.containsKey(name)) {
                throw lacks(name);
            }
        }
        for (int i = 0; i < program.leaves().size(); i++) {
            bench.leaf(i)[0] = Objects.requireNonNull(
                    values.get((String) program.leaves().get(i).key()));
        }
        bench.run(1);
        return bench.result(0)[0];
    }
}
