package lane.field;

import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.function.Supplier;
import lane.base.LaneException;
import org.jspecify.annotations.Nullable;

/**
 * One question to a run in pieces. Each piece is asked the whole question; it gets as far as the first thing that others have
 * not said yet, gives its own share of that, and is asked again when all have. So the last piece of the first round answers what
 * needs one sum, that of the second round what needs a mean first. The answer is put together in the order of the pieces.
 */
public final class Gathering {
    /** Others have to say something first. */
    private static final class Pending extends RuntimeException {
        private static final long serialVersionUID = 1;

        Pending() {
            super("not all pieces have been asked", null, false, false);
        }
    }

    /** What is known of one thing that was asked. */
    private static final class Asked {
        final Object what;
        final @Nullable Object[] own;
        int count;

        @Nullable
        Object together;

        Asked(Object what, int pieces) {
            this.what = what;
            own = new Object[pieces];
        }
    }

    private final int pieces;
    private int given;
    private final Map<String, Asked> asked = new HashMap<>();

    public Gathering(int pieces) {
        this.pieces = pieces;
    }

    /** How many shares pieces have given: a round that adds none will never end. */
    public int given() {
        return given;
    }

    /**
     * Asks a piece.
     *
     * @return empty where other pieces have to be asked first, or again
     */
    public <T> Optional<T> ask(int piece, Function<Gather, T> question) {
        try {
            T answer = question.apply(new Share(piece));
            if (asked.isEmpty() && piece < pieces - 1) {
                // What asks nothing of the others is the same for all: the last piece says it.
                return Optional.empty();
            }
            return Optional.of(answer);
        } catch (Pending e) {
            return Optional.empty();
        }
    }

    /** What one piece sees: things are told apart by where in the question they stand. */
    private final class Share implements Gather {
        private final int piece;
        private String branch = "";
        private int next;

        Share(int piece) {
            this.piece = piece;
        }

        @Override
        public int pieces() {
            return pieces;
        }

        @Override
        public boolean whole() {
            return false;
        }

        @Override
        @SuppressWarnings("unchecked")
        public <T, R> R of(Object what, Supplier<T> own, Function<List<T>, R> together) {
            Asked one = asked.computeIfAbsent(branch + next++, k -> new Asked(what, pieces));
            if (!one.what.equals(what)) {
                throw new LaneException("The pieces of the run do not agree on what is computed (" + one.what + " and "
                        + what + "); state that the run is held whole.");
            }
            if (one.together == null) {
                if (one.own[piece] == null) {
                    one.own[piece] = own.get();
                    one.count++;
                    given++;
                }
                if (one.count < pieces) {
                    throw new Pending();
                }
                one.together = together.apply((List<T>) Arrays.asList(one.own));
            }
            return (R) one.together;
        }

        @Override
        public void each(List<Runnable> branches) {
            String before = branch;
            int at = next;
            Pending pending = null;
            for (int i = 0; i < branches.size(); i++) {
                branch = before + at + "." + i + ".";
                next = 0;
                try {
                    branches.get(i).run();
                } catch (Pending e) {
                    pending = e;
                }
            }
            branch = before;
            next = at + 1;
            if (pending != null) {
                throw pending;
            }
        }
    }
}
