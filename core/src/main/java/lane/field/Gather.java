package lane.field;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;
import java.util.function.Supplier;
import lane.base.Fault;
import lane.base.LaneException;
import lane.base.Sum;

/**
 * Puts together what the pieces of a run give, where one piece is read after the other. A run that is whole gives all of it
 * itself. Who computes one number over a run asks here for what he adds up or chooses among, so that the same code answers for
 * both.
 */
public interface Gather {
    /** Of a run that is held whole. */
    Gather WHOLE = new Gather() {
        @Override
        public int pieces() {
            return 1;
        }

        @Override
        public <T, R> R of(Object what, Supplier<T> own, Function<List<T>, R> together) {
            return together.apply(List.of(own.get()));
        }

        @Override
        public void each(List<Runnable> branches) {
            branches.forEach(Runnable::run);
        }
    };

    /** Of what stands for a run in pieces and gives nothing on its own. */
    static Gather apart(int pieces) {
        return new Gather() {
            @Override
            public int pieces() {
                return pieces;
            }

            @Override
            public <T, R> R of(Object what, Supplier<T> own, Function<List<T>, R> together) {
                needsWhole("This");
                throw new IllegalStateException("a run in pieces is not whole");
            }

            @Override
            public void each(List<Runnable> branches) {
                branches.forEach(Runnable::run);
            }
        };
    }

    /** How many pieces there are; 1 for what is whole. */
    int pieces();

    default boolean whole() {
        return pieces() == 1;
    }

    /**
     * What all pieces give together.
     *
     * @param what is asked, by value: the same on all pieces
     * @param own what this piece gives; not null
     * @param together of what the pieces give, in their order
     */
    <T, R> R of(Object what, Supplier<T> own, Function<List<T>, R> together);

    /**
     * Several questions that do not need each other's answers, so that each piece is asked all of them while it is there. They
     * are gone through in order.
     */
    void each(List<Runnable> branches);

    /** Numbers that add up, each by itself. */
    default double[] sums(Object what, Supplier<double[]> own) {
        return whole()
                ? own.get()
                : of(what, own, all -> {
                    Sum[] total = Sum.fresh(all.getFirst().length);
                    for (double[] one : all) {
                        for (int i = 0; i < total.length; i++) {
                            total[i].add(one[i]);
                        }
                    }
                    return Sum.values(total);
                });
    }

    /** The answers to several questions that do not need each other's, in order. */
    default <T> List<T> all(List<Supplier<T>> questions) {
        List<T> out = new ArrayList<>();
        List<Runnable> branches = new ArrayList<>();
        questions.forEach(q -> branches.add(() -> out.add(q.get())));
        each(branches);
        return out;
    }

    /** @throws LaneException where a run is not whole, of which something needs it to be */
    default void needsWhole(String what) {
        if (!whole()) {
            throw new LaneException(
                    Fault.NOT_READ,
                    what
                            + " is not computed of a run that is read piece by piece, since it needs what lies in other pieces;"
                            + " state that the run is held whole, if the memory suffices.");
        }
    }
}
