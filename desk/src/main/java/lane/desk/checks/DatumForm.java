package lane.desk.checks;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.scene.Node;
import lane.check.AgainstDatum;
import lane.check.Check;
import lane.check.CheckResult;
import lane.check.Demand;
import lane.check.Norm;
import lane.check.Rule;
import lane.check.Scale;
import lane.desk.Session;
import lane.desk.Tip;
import lane.desk.Ui;
import lane.reading.Reading;
import lane.study.Source;
import org.jspecify.annotations.Nullable;

/** A comparison with a datum: measures, tolerances, scales, datum, and how curves meet. */
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

    /** A factor of an uncertainty is no share. */
    private static boolean share(Scale scale, Norm norm) {
        return scale != Scale.ABSOLUTE && scale != Scale.UNCERTAINTY && !norm.share();
    }

    @Override
    public Optional<Node> inPlace(Check check, @Nullable CheckResult result, Consumer<Rule> changed) {
        var rule = (AgainstDatum) check.rule();
        String unit = rule.norm().share() ? "" : CheckRows.symbol(result);
        return Optional.of(CheckRows.inPlace(
                check,
                rule.tolerance(),
                share(rule.scale(), rule.norm()),
                List.of(Scale.values()),
                rule.scale(),
                Scale::word,
                s -> s == Scale.ABSOLUTE
                        ? unit
                        : s == Scale.UNCERTAINTY ? "u_val" : rule.norm().share() ? "" : "%",
                t -> changed.accept(rule.tolerating(t)),
                s -> changed.accept(scaled(rule, s))));
    }

    /** Under a coverage factor a share would be far too small, and the other way round. */
    private static AgainstDatum scaled(AgainstDatum rule, Scale to) {
        boolean factor = to == Scale.UNCERTAINTY;
        boolean was = rule.scale() == Scale.UNCERTAINTY;
        AgainstDatum next = rule.relativeTo(to);
        return factor == was ? next : next.tolerating(factor ? 2 : 0.01);
    }

    @Override
    public List<Node> rows(Session session, Check check, @Nullable CheckResult result, Consumer<Rule> changed) {
        var rule = (AgainstDatum) check.rule();
        var study = session.study();
        List<Node> out = new ArrayList<>();
        boolean curve = study.reading(check.reading()).filter(Reading::curve).isPresent();
        if (curve) {
            var norm = Ui.choice(
                    "check-norm",
                    List.of(Norm.values()),
                    rule.norm(),
                    DatumForm::word,
                    n -> changed.accept(rule.by(n)));
            norm.setPrefWidth(220);
            out.add(Ui.row(8, Ui.left("Measure", 72, "second"), norm));
        }
        boolean share = share(rule.scale(), rule.norm());
        var scale = Ui.choice(
                "check-scale",
                List.of(Scale.values()),
                rule.scale(),
                Scale::word,
                s -> changed.accept(scaled(rule, s)));
        scale.setPrefWidth(140);
        out.add(Ui.row(
                8,
                Ui.left("Tolerance", 72, "second"),
                CheckRows.tolerance(rule.tolerance(), !share, t -> changed.accept(rule.tolerating(t))),
                rule.scale() == Scale.UNCERTAINTY || rule.norm().share()
                        ? Ui.label("", "muted")
                        : CheckRows.unit(result, !share),
                scale));
        for (int i = 0; curve && i < rule.also().size(); i++) {
            out.add(demand(rule, i, result, changed));
        }
        if (curve) {
            var more = Ui.button(
                    "+ Another measure",
                    () -> {
                        var all = new ArrayList<>(rule.also());
                        Norm next = List.of(Norm.LINF, Norm.BIAS, Norm.L1, Norm.L2).stream()
                                .filter(n ->
                                        n != rule.norm() && rule.also().stream().noneMatch(d -> d.norm() == n))
                                .findFirst()
                                .orElse(Norm.LINF);
                        all.add(new Demand(next, Scale.RANGE, 0.02));
                        changed.accept(rule.also(all));
                    },
                    "small-button");
            more.setId("check-another");
            out.add(Ui.row(8, Ui.left("", 72), more));
        }
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
                                ? rule.other().isBlank() ? "the study's" : "the same lane"
                                : study.source(d).map(Source::name).orElse(d),
                        d -> changed.accept(rule.from(d)))));
        out.add(other(session, check, rule, changed));
        if (curve) {
            out.addAll(MeetingRows.of(rule, changed));
        }
        return out;
    }

    private static String word(Norm n) {
        return n.symbol() + ", " + n.word();
    }

    private static Node demand(AgainstDatum rule, int i, @Nullable CheckResult result, Consumer<Rule> changed) {
        Demand d = rule.also().get(i);
        Consumer<Demand> set = next -> {
            var all = new ArrayList<>(rule.also());
            all.set(i, next);
            changed.accept(rule.also(all));
        };
        boolean share = share(d.scale(), d.norm());
        var norm = Ui.choice(
                "check-norm-" + i,
                List.of(Norm.values()),
                d.norm(),
                Norm::symbol,
                n -> set.accept(new Demand(n, d.scale(), d.tolerance())));
        norm.setPrefWidth(84);
        var field = Ui.number(
                "check-tolerance-" + i,
                share ? 100 * d.tolerance() : d.tolerance(),
                v -> set.accept(new Demand(d.norm(), d.scale(), share ? v / 100 : v)));
        field.setPrefWidth(58);
        var scale = Ui.choice(
                "check-scale-" + i,
                List.of(Scale.values()),
                d.scale(),
                Scale::word,
                s -> set.accept(new Demand(d.norm(), s, d.tolerance())));
        scale.setPrefWidth(110);
        var gone = Ui.iconButton(org.kordamp.ikonli.feather.Feather.X, "Leave this measure out", () -> {
            var all = new ArrayList<>(rule.also());
            all.remove(i);
            changed.accept(rule.also(all));
        });
        return Ui.row(
                6,
                norm,
                field,
                d.norm().share() || d.scale() == Scale.UNCERTAINTY
                        ? Ui.label("", "muted")
                        : CheckRows.unit(result, !share),
                scale,
                gone);
    }

    private static Node other(Session session, Check check, AgainstDatum rule, Consumer<Rule> changed) {
        var study = session.study();
        List<String> readings = new ArrayList<>(List.of(""));
        boolean curve = study.reading(check.reading()).filter(Reading::curve).isPresent();
        study.readings().stream()
                .filter(r -> !r.id().equals(check.reading()) && r.curve() == curve)
                .forEach(r -> readings.add(r.id()));
        var choice = Ui.choice(
                "check-other",
                readings,
                rule.other(),
                r -> r.isBlank()
                        ? "this reading"
                        : study.reading(r).map(Reading::name).orElse(r),
                r -> changed.accept(rule.with(r)));
        choice.setPrefWidth(200);
        Tip.on(
                choice,
                "What it is compared with: this reading of the datum, or another one, of the datum or of the same lane");
        return Ui.row(8, Ui.left("With", 72, "second"), choice);
    }
}
