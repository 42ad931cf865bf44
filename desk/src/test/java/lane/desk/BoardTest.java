package lane.desk;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ListView;
import javafx.scene.control.MenuButton;
import javafx.scene.input.KeyCode;
import lane.check.AgainstDatum;
import lane.check.Check;
import lane.check.Norm;
import lane.check.Scale;
import lane.check.Verdict;
import org.junit.jupiter.api.Test;

/** The board as it is used: found, ordered, changed in place, judged by more than one measure, decided, looked at in the picture. */
class BoardTest extends InWindow {
    private int shownRows() throws Exception {
        return onFx(() -> ((ListView<?>) node("board")).getItems().size());
    }

    private void fire(String word) throws Exception {
        await(() -> robot.lookup(n -> n instanceof Button b && b.getText().equals(word))
                .tryQuery()
                .isPresent());
        onFx(() -> {
            robot.lookup(n -> n instanceof Button b && b.getText().equals(word))
                    .queryAs(Button.class)
                    .fire();
            return null;
        });
        events();
    }

    private int verdicts(Verdict verdict) {
        return (int) session.results().checks().values().stream()
                .filter(c -> c.verdict() == verdict)
                .count();
    }

    private void choice(String menu, String item) throws Exception {
        onFx(() -> {
            MenuButton m = node(menu);
            m.getItems().stream()
                    .filter(i -> i.getText().equals(item))
                    .findFirst()
                    .orElseThrow()
                    .fire();
            return null;
        });
        events();
    }

    @Test
    void checksAreFoundOrderedAndChangedInPlace() throws Exception {
        press(KeyCode.DIGIT5);
        settled();
        int all = session.study().checks().size();
        assertThat(shownRows()).isEqualTo(all);
        assertThat(onFx(() -> ((Label) node("board-summary")).getText())).startsWith(all + " checks: ");
        choice("board-show", "out");
        assertThat(shownRows()).isEqualTo(verdicts(Verdict.OUT));
        choice("board-show", "all");
        enter("board-search", "torque");
        assertThat(shownRows()).isBetween(1, all - 1);
        enter("board-search", "nothing like it");
        see("No check is shown");
        fire("Show all");
        choice("board-order", "worst first");
        choice("board-grouping", "by kind of reading");
        assertThat(shownRows()).isGreaterThan(all);
        choice("board-grouping", "no headings");
        choice("board-order", "as in the study");
        // The tolerance on the board itself.
        enter("tolerance-flow", "60");
        settled();
        assertThat(((AgainstDatum) check("flow").rule()).tolerance()).isEqualTo(0.6);
        assertThat(session.results().checks().get("flow").verdict()).isEqualTo(Verdict.WITHIN);
        choice("scale-flow", "times the standard uncertainty of the difference");
        settled();
        assertThat(((AgainstDatum) check("flow").rule()).tolerance()).isEqualTo(2);
        look("board-in-place");
    }

    private Check check(String id) {
        return session.study().checks().stream()
                .filter(c -> c.id().equals(id))
                .findFirst()
                .orElseThrow();
    }

    @Test
    void aCheckHasSeveralMeasuresInputsAndADecision() throws Exception {
        press(KeyCode.DIGIT5);
        onFx(() -> {
            session.select(Chosen.CHECK, "swirl-l2");
            return null;
        });
        settled();
        fire("+ Another measure");
        settled();
        enter("check-tolerance-0", "0.001");
        settled();
        assertThat(session.results().checks().get("swirl-l2").verdict()).isEqualTo(Verdict.OUT);
        choose("check-norm-0", "bias");
        choose("meeting-at", "at even points");
        settled();
        assertThat(((AgainstDatum) check("swirl-l2").rule()).how().samples()).isEqualTo(101);
        fire("+ Input");
        settled();
        enter("input-standard-0", "0.01");
        settled();
        assertThat(check("swirl-l2").doubts().inputs()).singleElement().satisfies(i -> assertThat(i.standard())
                .isEqualTo(0.01));
        enter("decision-because", "the gap was machined wider");
        settled();
        enter("decision-by", "M. Osei");
        settled();
        assertThat(check("swirl-l2").decision().words())
                .startsWith("Noted by M. Osei, 20")
                .contains("machined wider");
        enter("check-group", "Swirl");
        settled();
        choice("board-grouping", "by group");
        see("Swirl");
        look("board-card");
        choose("check-kind", "numerical uncertainty of the family");
        settled();
        assertThat(session.results().checks().get("swirl-l2").why()).contains("Numerical uncertainty");
        choose("check-kind", "order of the error, datum exact");
        settled();
        assertThat(session.results().checks().get("swirl-l2").why()).contains("Observed order of the error");
        look("board-order");
    }

    @Test
    void aCellLeadsToThePictureAndBack() throws Exception {
        press(KeyCode.DIGIT5);
        settled();
        onFx(() -> {
            ((Button) node("pin-swirl-l2-medium")).fire();
            return null;
        });
        settled();
        assertThat(session.stop()).isEqualTo(2);
        assertThat(session.selected(Chosen.STATION))
                .isEqualTo(session.study()
                        .reading(check("swirl-l2").reading())
                        .orElseThrow()
                        .stations()
                        .getFirst());
        fire("Back to the check");
        assertThat(session.stop()).isEqualTo(5);
    }

    @Test
    void aThousandChecksStandOnTheBoardAndOnlySomeAreDrawn() throws Exception {
        String reading = check("flow").reading();
        onFx(() -> {
            session.edit(
                    "Many",
                    s -> s.withChecks(l -> {
                        List<Check> all = new ArrayList<>(l);
                        for (int i = 0; i < 1000; i++) {
                            all.add(new Check(
                                    "many-" + i, reading, Norm.L2, Scale.RANGE, 0.001 * (i + 1), "", List.of("fine")));
                        }
                        return all;
                    }));
            return null;
        });
        settled();
        onFx(() -> {
            session.go(5);
            return null;
        });
        events();
        assertThat(shownRows()).isGreaterThan(1000);
        assertThat(onFx(() -> robot.lookup(n -> n.getStyleClass().contains("board-row"))
                        .queryAll()
                        .size()))
                .isLessThan(60);
        enter("tolerance-flow", "0.4");
        settled();
        look("board-many");
    }
}
