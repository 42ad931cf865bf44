package lane.desk.checks;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import javafx.scene.Node;
import lane.check.AgainstDatum;
import lane.check.Check;
import lane.check.CheckResult;
import lane.check.Norm;
import lane.check.Rule;
import lane.check.Scale;
import lane.desk.Session;
import lane.desk.Ui;
import lane.reading.Reading;
import lane.study.Source;
import org.jspecify.annotations.Nullable;

/** A comparison with a datum: norm, tolerance, scale, datum. */
public final class DatumForm implements RuleForm {
    @Override
    public String word() {
        return "datum";
    }

    @Override
    public Class<AgainstDatum> type() {
        return AgainstDatum.class;
    }

    @Override
    public String title() {
        return "difference from a datum";
    }

    @Override
    public Rule first(Reading reading) {
        return new AgainstDatum(Norm.L2, Scale.RANGE, 0.01, "");
    }

    @Override
    public List<Node> rows(Session session, Check check, @Nullable CheckResult result, Consumer<Rule> changed) {
        var rule = (AgainstDatum) check.rule();
        var study = session.study();
        List<Node> out = new ArrayList<>();
        if (study.reading(check.reading()).filter(Reading::curve).isPresent()) {
            out.add(Ui.row(
                    8,
                    Ui.left("Norm", 72, "second"),
                    Ui.segments(
                            List.of(Norm.values()),
                            rule.norm(),
                            Norm::symbol,
                            n -> changed.accept(new AgainstDatum(n, rule.scale(), rule.tolerance(), rule.datum())))));
        }
        boolean absolute = rule.scale() == Scale.ABSOLUTE;
        out.add(Ui.row(
                8,
                Ui.left("Tolerance", 72, "second"),
                CheckRows.tolerance(rule.tolerance(), absolute, t -> changed.accept(rule.tolerating(t))),
                CheckRows.unit(result, absolute),
                Ui.choice(
                        "check-scale",
                        List.of(Scale.values()),
                        rule.scale(),
                        Scale::word,
                        s -> changed.accept(new AgainstDatum(rule.norm(), s, rule.tolerance(), rule.datum())))));
        List<String> datums = new ArrayList<>(List.of(""));
        study.sources().forEach(s -> datums.add(s.id()));
        out.add(Ui.row(
                8,
                Ui.left("Datum", 72, "second"),
                Ui.choice(
                        "check-datum",
                        datums,
                        rule.datum(),
                        d -> d.isBlank()
                                ? "the study's"
                                : study.source(d).map(Source::name).orElse(d),
                        d -> changed.accept(new AgainstDatum(rule.norm(), rule.scale(), rule.tolerance(), d)))));
        return out;
    }
}
