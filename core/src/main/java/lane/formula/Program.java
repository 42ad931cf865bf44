package lane.formula;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.ToIntFunction;
import org.jspecify.annotations.Nullable;

/**
 * A formula as steps over blocks of at most {@value #BLOCK} places: each step is a loop over arrays that stay in the
 * nearest cache, so no array of full size is made but the result. Immutable and shared; each thread runs it in a {@link
 * Bench} of its own.
 */
public final class Program {
    /** Most places in a block. */
    public static final int BLOCK = 512;

    /** A component of values that the user of the program loads. */
    public record Leaf(Object key, int component) {}

    private record Step(Object what, Kernel kernel, int[] in, int out) {
        List<Object> identity() {
            return List.of(what, Arrays.stream(in).boxed().toList(), out);
        }
    }

    private final List<Leaf> leaves;
    private final int[] leafSlot;
    private final double[] constants;
    private final Step[] steps;
    private final int slots;
    private final int[] results;

    private Program(List<Leaf> leaves, int[] leafSlot, double[] constants, Step[] steps, int slots, int[] results) {
        this.leaves = List.copyOf(leaves);
        this.leafSlot = leafSlot;
        this.constants = constants;
        this.steps = steps;
        this.slots = slots;
        this.results = results;
    }

    /** What must be loaded before a block is run. */
    public List<Leaf> leaves() {
        return leaves;
    }

    public int components() {
        return results.length;
    }

    /** The one leaf that it gives as it is; null where it computes anything. */
    public @Nullable Leaf alone() {
        List<Leaf> all = plain();
        return all.size() == 1 ? all.getFirst() : null;
    }

    /** The leaves that its results are as they are, in their order; none where it computes anything. */
    public List<Leaf> plain() {
        if (steps.length > 0) {
            return List.of();
        }
        List<Leaf> out = new java.util.ArrayList<>();
        for (int result : results) {
            for (int i = 0; i < leafSlot.length; i++) {
                if (leafSlot[i] == result) {
                    out.add(leaves.get(i));
                }
            }
        }
        return out.size() == results.length ? out : List.of();
    }

    /** Equal for programs that give equal numbers from equal leaves. */
    public Object identity() {
        return List.of(
                leaves,
                Arrays.stream(leafSlot).boxed().toList(),
                Arrays.stream(constants).boxed().toList(),
                Arrays.stream(steps).map(Step::identity).toList(),
                Arrays.stream(results).boxed().toList());
    }

    /** Of what is no polynomial of its leaves. */
    public static final int NO_POLYNOMIAL = 1000;

    /**
     * The degree of a result as a polynomial of what its leaves are polynomials of; at least {@link #NO_POLYNOMIAL} for none.
     *
     * @param leaf the degree of a leaf
     */
    public int degree(ToIntFunction<Leaf> leaf) {
        int[] of = new int[slots];
        for (int i = 0; i < leafSlot.length; i++) {
            of[leafSlot[i]] = leaf.applyAsInt(leaves.get(i));
        }
        for (Step s : steps) {
            int most = Arrays.stream(s.in).map(i -> of[i]).max().orElse(0);
            of[s.out] = most == 0
                    ? 0
                    : switch (String.valueOf(s.what)) {
                        case "+", "-", "neg" -> most;
                        case "*" -> of[s.in[0]] + of[s.in[1]];
                        case "/" -> of[s.in[1]] == 0 ? of[s.in[0]] : NO_POLYNOMIAL;
                        default -> NO_POLYNOMIAL;
                    };
        }
        return Arrays.stream(results).map(i -> of[i]).max().orElse(0);
    }

    public Bench bench() {
        return new Bench(BLOCK);
    }

    /** A bench for blocks of at most so many places. */
    public Bench bench(int most) {
        return new Bench(Math.min(most, BLOCK));
    }

    /** Where a thread runs a program: load the leaves, run, take the results. */
    public final class Bench {
        private final double[][] slot;
        private final double[][][] inputs = new double[steps.length][][];

        private Bench(int most) {
            slot = new double[slots][most];
            for (int i = 0; i < constants.length; i++) {
                Arrays.fill(slot[i], constants[i]);
            }
            for (int s = 0; s < steps.length; s++) {
                inputs[s] = new double[steps[s].in.length][];
                for (int k = 0; k < inputs[s].length; k++) {
                    inputs[s][k] = slot[steps[s].in[k]];
                }
            }
        }

        /** Where the values of a leaf go. */
        public double[] leaf(int i) {
            return slot[leafSlot[i]];
        }

        /** @param n places that were loaded, at most {@value #BLOCK} */
        public void run(int n) {
            for (int s = 0; s < steps.length; s++) {
                steps[s].kernel.apply(inputs[s], slot[steps[s].out], n);
            }
        }

        /** Values of a component of the result; valid until leaves are loaded again. */
        public double[] result(int component) {
            return slot[results[component]];
        }
    }

    /** Collects steps; equal steps are made once, and what is constant is computed at once. */
    static final class Builder {
        private record Key(Object what, List<Integer> in) {}

        private record Made(Object what, Kernel kernel, int[] in) {}

        private final List<Leaf> leaves = new ArrayList<>();
        private final List<Double> constants = new ArrayList<>();
        private final List<Object> values = new ArrayList<>();

        private final Map<Object, Integer> known = new HashMap<>();

        int constant(double value) {
            return known.computeIfAbsent(Double.doubleToRawLongBits(value), k -> {
                constants.add(value);
                values.add(value);
                return values.size() - 1;
            });
        }

        /** The constant behind a value; NaN if it is none. */
        double constantOf(int value) {
            return values.get(value) instanceof Double d ? d : Double.NaN;
        }

        boolean constantIs(int value) {
            return values.get(value) instanceof Double;
        }

        int leaf(Object key, int component) {
            var leaf = new Leaf(key, component);
            return known.computeIfAbsent(leaf, k -> {
                leaves.add(leaf);
                values.add(leaf);
                return values.size() - 1;
            });
        }

        /** @param what tells this kernel from all others */
        int step(Object what, Kernel kernel, int... in) {
            if (Arrays.stream(in).allMatch(this::constantIs)) {
                double[][] at = new double[in.length][];
                for (int i = 0; i < in.length; i++) {
                    at[i] = new double[] {constantOf(in[i])};
                }
                double[] out = new double[1];
                kernel.apply(at, out, 1);
                return constant(out[0]);
            }
            var key = new Key(what, Arrays.stream(in).boxed().toList());
            return known.computeIfAbsent(key, k -> {
                values.add(new Made(what, kernel, in.clone()));
                return values.size() - 1;
            });
        }

        /** The program whose result are these values. Steps that nothing needs are left out. */
        Program build(int[] results) {
            int n = values.size();
            boolean[] needed = new boolean[n];
            for (int r : results) {
                needed[r] = true;
            }
            int[] last = new int[n];
            Arrays.fill(last, -1);
            for (int i = n - 1; i >= 0; i--) {
                if (needed[i] && values.get(i) instanceof Made m) {
                    for (int k : m.in) {
                        needed[k] = true;
                        last[k] = Math.max(last[k], i);
                    }
                }
            }
            for (int r : results) {
                last[r] = Integer.MAX_VALUE;
            }
            int[] slotOf = new int[n];
            Arrays.fill(slotOf, -1);
            List<Double> usedConstants = new ArrayList<>();
            for (int i = 0; i < n; i++) {
                if (needed[i] && values.get(i) instanceof Double d) {
                    slotOf[i] = usedConstants.size();
                    usedConstants.add(d);
                }
            }
            int slots = usedConstants.size();
            List<Leaf> usedLeaves = new ArrayList<>();
            List<Integer> leafSlots = new ArrayList<>();
            for (int i = 0; i < n; i++) {
                if (needed[i] && values.get(i) instanceof Leaf l) {
                    slotOf[i] = slots++;
                    usedLeaves.add(l);
                    leafSlots.add(slotOf[i]);
                }
            }
            List<Step> steps = new ArrayList<>();
            var free = new java.util.ArrayDeque<Integer>();
            for (int i = 0; i < n; i++) {
                if (needed[i] && values.get(i) instanceof Made m) {
                    int[] in = new int[m.in.length];
                    for (int k = 0; k < in.length; k++) {
                        in[k] = slotOf[m.in[k]];
                    }
                    slotOf[i] = free.isEmpty() ? slots++ : free.pop();
                    steps.add(new Step(m.what, m.kernel, in, slotOf[i]));
                    // Slots of what is not needed any more serve again; constants and leaves keep theirs.
                    for (int k : Arrays.stream(m.in).distinct().toArray()) {
                        if (last[k] == i && values.get(k) instanceof Made) {
                            free.push(slotOf[k]);
                        }
                    }
                }
            }
            int[] out = new int[results.length];
            for (int r = 0; r < results.length; r++) {
                out[r] = slotOf[results[r]];
            }
            return new Program(
                    usedLeaves,
                    leafSlots.stream().mapToInt(i -> i).toArray(),
                    usedConstants.stream().mapToDouble(d -> d).toArray(),
                    steps.toArray(Step[]::new),
                    slots,
                    out);
        }
    }
}
