package lane.field;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import lane.base.Fault;
import lane.base.LaneException;
import org.junit.jupiter.api.Test;

/** Three crates of apples, looked into one after the other. */
class GatheringTest {
    private static final double[][] CRATES = {{3, 5}, {}, {10, 1, 1}};

    private final List<String> opened = new ArrayList<>();

    private double[] sum(int crate, Function<Double, Double> of) {
        opened.add("sum " + crate);
        double sum = 0;
        for (double apple : CRATES[crate]) {
            sum += of.apply(apple);
        }
        return new double[] {sum, CRATES[crate].length};
    }

    private static <T> List<Optional<T>> round(Gathering of, int piece, Function<Gather, T> question) {
        return List.of(of.ask(piece, question));
    }

    @Test
    void whatNeedsOneSumIsAnsweredByTheLastPiece() {
        var asked = new Gathering(3);
        List<Double> answers = new ArrayList<>();
        for (int k = 0; k < 3; k++) {
            int crate = k;
            asked.ask(k, g -> {
                        double[] s = g.sums("apples", () -> sum(crate, a -> a));
                        return s[0] / s[1];
                    })
                    .ifPresent(answers::add);
        }
        assertThat(answers).containsExactly(4.0);
        assertThat(opened).containsExactly("sum 0", "sum 1", "sum 2");
    }

    @Test
    void whatNeedsTheMeanFirstAsksEachPieceTwice() {
        var asked = new Gathering(3);
        Optional<Double> answer = Optional.empty();
        int rounds = 0;
        while (answer.isEmpty()) {
            rounds++;
            for (int k = 0; k < 3 && answer.isEmpty(); k++) {
                int crate = k;
                answer = asked.ask(k, g -> {
                    double[] s = g.sums("apples", () -> sum(crate, a -> a));
                    double mean = s[0] / s[1];
                    double[] v = g.sums("about " + mean, () -> sum(crate, a -> (a - mean) * (a - mean)));
                    return v[0] / v[1];
                });
            }
        }
        assertThat(answer).hasValue((1 + 1 + 36 + 9 + 9) / 5.0);
        // The last piece of the first round goes on at once with what comes next.
        assertThat(rounds).isEqualTo(2);
        assertThat(opened).containsExactly("sum 0", "sum 1", "sum 2", "sum 2", "sum 0", "sum 1");
    }

    @Test
    void questionsThatDoNotNeedEachOtherAreAskedAtOnce() {
        var asked = new Gathering(2);
        Function<Gather, List<Double>> question = g -> g.all(List.of(
                () -> g.sums("first", () -> new double[] {1})[0],
                () -> g.sums("second", () -> new double[] {10})[0] * g.sums("third", () -> new double[] {100})[0]));
        assertThat(asked.ask(0, question)).isEmpty();
        assertThat(asked.ask(1, question)).isEmpty();
        assertThat(asked.ask(0, question)).contains(List.of(2.0, 20.0 * 200.0));
        assertThat(Gather.WHOLE.all(List.of(() -> 1, () -> 2))).containsExactly(1, 2);
    }

    @Test
    void whatIsPutTogetherComesInTheOrderOfThePiecesWhoeverIsAskedFirst() {
        var asked = new Gathering(3);
        List<String> all = new ArrayList<>();
        for (int k : new int[] {2, 0, 1}) {
            asked.ask(k, g -> g.<String, String>of("names", () -> "p" + k, names -> String.join(" ", names)))
                    .ifPresent(all::add);
        }
        assertThat(all).containsExactly("p0 p1 p2");
    }

    @Test
    void whatAsksNothingIsSaidOnceAndPiecesThatDisagreeAreRefused() {
        var asked = new Gathering(3);
        assertThat(round(asked, 0, g -> 7)).containsExactly(Optional.empty());
        assertThat(round(asked, 2, g -> 7)).containsExactly(Optional.of(7));
        var other = new Gathering(2);
        other.ask(0, g -> g.sums("apples", () -> new double[] {1}));
        assertThatThrownBy(() -> other.ask(1, g -> g.sums("pears", () -> new double[] {1})))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("do not agree");
    }

    @Test
    void aRoundThatAddsNothingIsSeen() {
        var asked = new Gathering(2);
        // One piece asks for what the other never gives.
        asked.ask(0, g -> g.sums("apples", () -> new double[] {1}));
        asked.ask(1, g -> 0);
        int given = asked.given();
        assertThat(asked.ask(0, g -> g.sums("apples", () -> new double[] {1}))).isEmpty();
        assertThat(asked.given()).isEqualTo(given).isEqualTo(1);
    }

    @Test
    void aPieceIsNotWholeAndItsHeadGivesNothing() {
        Gather head = Gather.apart(5);
        assertThat(head.whole()).isFalse();
        assertThat(head.pieces()).isEqualTo(5);
        assertThatThrownBy(() -> head.sums("apples", () -> new double[] {1}))
                .isInstanceOfSatisfying(
                        LaneException.class, e -> assertThat(e.fault()).isEqualTo(Fault.NOT_READ));
        Gather.WHOLE.needsWhole("A gradient");
        assertThatThrownBy(() -> head.needsWhole("A gradient")).hasMessageStartingWith("A gradient is not computed");
    }
}
