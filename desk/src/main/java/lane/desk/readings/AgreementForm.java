package lane.desk.readings;

import java.util.List;
import java.util.Optional;
import javafx.scene.layout.VBox;
import lane.check.AgreementOf;
import lane.check.Norm;
import lane.desk.Session;
import lane.desk.Ui;
import lane.reading.Ask;
import lane.reading.Reading;
import lane.study.Source;
import lane.study.Study;
import org.kordamp.ikonli.feather.Feather;

/** The measures of a curve's agreement with a datum, as numbers that formulas and tallies take by name. */
public final class AgreementForm implements AskForm {
    @Override
    public String word() {
        return "agreement";
    }

    @Override
    public Class<AgreementOf> type() {
        return AgreementOf.class;
    }

    @Override
    public String group() {
        return "Comparisons";
    }

    @Override
    public Feather icon() {
        return Feather.GIT_PULL_REQUEST;
    }

    @Override
    public String name(Study study, Ask ask) {
        var a = (AgreementOf) ask;
        return "Agreement of " + study.reading(a.reading()).map(Reading::name).orElse(a.reading());
    }

    @Override
    public List<Maker> makers() {
        return List.of(new Maker(
                "Agreement of a curve with a datum",
                s -> curve(s).isEmpty()
                        ? "There is no curve to compare yet; add a profile first."
                        : datum(s).isEmpty()
                                ? "There is no lane to compare with; bring a run, a table or a theory."
                                : "",
                s -> curve(s).ifPresent(r -> datum(s).ifPresent(d -> {
                    var ask = new AgreementOf(r.id(), d, Norm.L2, null);
                    NewReading.add(s, "Agreement of " + r.name(), "", ask);
                }))));
    }

    private static Optional<Reading> curve(Session session) {
        return session.study().readings().stream().filter(Reading::curve).findFirst();
    }

    private static Optional<String> datum(Session session) {
        return session.study().datum().isBlank()
                ? session.study().sources().stream().map(Source::id).reduce((a, b) -> b)
                : Optional.of(session.study().datum());
    }

    @Override
    public void settings(Session session, Reading reading, VBox box) {
        var a = (AgreementOf) reading.ask();
        var study = session.study();
        var curves = study.readings().stream().filter(Reading::curve).toList();
        box.getChildren()
                .addAll(
                        Ui.row(
                                8,
                                Ui.left("Curve", 78, "second"),
                                Ui.choice(
                                        "agreement-reading",
                                        curves,
                                        study.reading(a.reading()).orElse(null),
                                        r -> r == null ? "?" : r.name(),
                                        r -> NewReading.change(
                                                session,
                                                reading.asking(
                                                        new AgreementOf(r.id(), a.datum(), a.norm(), a.how()))))),
                        Ui.row(
                                8,
                                Ui.left("Datum", 78, "second"),
                                Ui.choice(
                                        "agreement-datum",
                                        study.sources().stream().map(Source::id).toList(),
                                        a.datum(),
                                        id -> study.source(id).map(Source::name).orElse(id),
                                        id -> NewReading.change(
                                                session,
                                                reading.asking(new AgreementOf(a.reading(), id, a.norm(), a.how()))))),
                        Ui.row(
                                8,
                                Ui.left("Answer", 78, "second"),
                                Ui.segments(
                                        List.of(Norm.L1, Norm.L2, Norm.LINF, Norm.BIAS),
                                        a.norm(),
                                        Norm::symbol,
                                        n -> NewReading.change(
                                                session,
                                                reading.asking(new AgreementOf(a.reading(), a.datum(), n, a.how()))))));
    }
}
