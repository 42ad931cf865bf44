package lane.desk;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.function.Predicate;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ListView;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import lane.check.AgainstDatum;
import lane.check.Check;
import lane.desk.shell.CommandSearch;
import lane.reference.Curve;
import lane.study.Source;
import org.junit.jupiter.api.Test;

/** What somebody looks for in the first hour: found where it is named, and told where it cannot be. */
class FirstHourTest extends InWindow {
    private void choose(String menu, Predicate<MenuItem> which) throws Exception {
        MenuButton button = node(menu);
        robot.interact(() -> button.getItems().stream()
                .filter(which)
                .findFirst()
                .orElseThrow()
                .fire());
        settled();
    }

    private static Predicate<MenuItem> called(String text) {
        return i -> text.equals(i.getText());
    }

    private String name(String source) {
        return session.study().source(source).map(Source::name).orElseThrow();
    }

    private Check check(String id) {
        return session.study().checks().stream()
                .filter(c -> c.id().equals(id))
                .findFirst()
                .orElseThrow();
    }

    @Test
    void theDatumIsChosenWhereItIsNamedAndLanesHaveAMenuThatIsSeen() throws Exception {
        choose("study-datum", called(name("coarse")));
        assertThat(session.study().datum()).isEqualTo("coarse");
        choose("chip-menu-fine", called("Take as datum"));
        assertThat(session.study().datum()).isEqualTo("fine");
        choose("chip-menu-fine", called("Switch on or off"));
        assertThat(session.study().off()).contains("fine");
        choose("study-datum", called("none"));
        assertThat(session.study().datum()).isEmpty();
        assertThat(((MenuButton) node("study-datum")).getText()).isEqualTo("none yet");
    }

    @Test
    void aReadingTellsAndSetsItsDatumAndWhoIsJudged() throws Exception {
        robot.interact(() -> {
            session.select(Chosen.READING, "swirl-gap");
            session.go(4);
        });
        events();
        String id = session.study().checks().stream()
                .filter(c -> c.reading().equals("swirl-gap"))
                .findFirst()
                .orElseThrow()
                .id();
        choose("reading-datum", called(name("fine")));
        assertThat(((AgainstDatum) check(id).rule()).datum()).isEqualTo("fine");
        choose("reading-datum", i -> i.getText().startsWith("the study's: "));
        assertThat(((AgainstDatum) check(id).rule()).datum()).isEmpty();
        choose("judged-lanes", called(name("coarse")));
        assertThat(check(id).judged()).contains("coarse", "fine");
        look("first-hour-reading");
        // The unit of a curve is set beside its values; its numbers follow.
        enter("profile-unit", "mm/s");
        settled();
        assertThat(session.results().unit("swirl-gap").symbol()).isEqualTo("mm/s");
    }

    @Test
    void aFormulaIsBroughtInTheReadingItself() throws Exception {
        robot.interact(() -> {
            session.edit("Forget theories", s -> s.withSources(l -> {
                        l.removeIf(x ->
                                x instanceof Source.Reference r && r.files().isEmpty());
                        return l;
                    })
                    .withDatum(""));
            session.select(Chosen.READING, "swirl-gap");
            session.go(4);
        });
        settled();
        Button formula = node("against-formula");
        robot.interact(formula::fire);
        TextField text = node("against-formula-text");
        robot.interact(() -> text.setText("0.5 * s / 0.006"));
        Button add = node("against-formula-add");
        robot.interact(add::fire);
        settled();
        Source.Reference made = (Source.Reference) session.study().sources().getLast();
        assertThat(made.kind()).isEqualTo(Source.Kind.THEORY);
        assertThat(made.answers()).singleElement().isInstanceOf(Curve.ByFormula.class);
        assertThat(session.study().datum())
                .as("the first reference is the datum")
                .isEqualTo(made.id());
        // What is no formula is told in a sentence, and nothing changes.
        robot.interact(() -> session.select(Chosen.READING, "temperature-outlet"));
        events();
        Button again = node("against-formula");
        robot.interact(again::fire);
        TextField wrong = node("against-formula-text");
        robot.interact(() -> wrong.setText("0.5 * * s"));
        Button addWrong = node("against-formula-add");
        robot.interact(addWrong::fire);
        events();
        assertThat(session.message()).isNotBlank();
        assertThat(session.news()).isFalse();
        assertThat(((Source.Reference) session.study().sources().getLast()).answers())
                .hasSize(1);
    }

    @Test
    void theSearchOffersWhatComesNearAndSaysWhenThereIsNothing() throws Exception {
        press(KeyCode.CONTROL, KeyCode.K);
        TextField field = node("search-field");
        robot.interact(() -> field.setText("tempreature"));
        events();
        assertThat(found().getFirst()).contains("Nothing is called \"tempreature\"; near it:");
        assertThat(found()).anyMatch(w -> w.toLowerCase(java.util.Locale.ROOT).contains("temperature"));
        robot.interact(() -> field.setText("qzxjqzxj"));
        events();
        assertThat(found()).isEmpty();
        assertThat(((Label) node("search-none")).getText()).startsWith("Nothing is called \"qzxjqzxj\".");
        look("first-hour-search");
        robot.interact(() -> field.setText("tell lengths in m"));
        events();
        assertThat(found()).anyMatch(w -> w.startsWith("Tell lengths in mm"));
        press(KeyCode.ESCAPE);
    }

    private List<String> found() {
        ListView<CommandSearch.Command> list = node("search-list");
        return list.getItems().stream().map(CommandSearch.Command::words).toList();
    }

    @Test
    void lengthsAreToldInTheUnitThatIsSet() throws Exception {
        robot.interact(() -> {
            session.select(Chosen.STATION, "gap-mid");
            session.go(2);
        });
        see("6 mm long");
        robot.interact(
                () -> session.edit("Unit of lengths", s -> s.with(s.settings().withLength("cm"))));
        settled();
        see("0.6 cm long");
        enter("end-Az", "5.5");
        settled();
        assertThat(((lane.station.Line)
                                session.study().station("gap-mid").orElseThrow().shape())
                        .a()
                        .z())
                .isEqualTo(0.055);
    }
}
