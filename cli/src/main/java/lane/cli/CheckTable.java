package lane.cli;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import lane.base.Figures;
import lane.check.Check;
import lane.check.CheckResult;
import lane.reading.Reading;
import lane.study.Results;
import lane.study.Source;

/** The board of checks as text: a row a check, a column a lane. */
public final class CheckTable {
    private CheckTable() {}

    public static String of(Results results) {
        List<List<String>> rows = new ArrayList<>();
        List<String> head = new ArrayList<>(List.of("check"));
        results.study().sources().forEach(s -> head.add(s.name()));
        head.add("tolerance");
        head.add("verdict");
        rows.add(head);
        for (Check check : results.study().checks()) {
            CheckResult result = Objects.requireNonNull(results.checks().get(check.id()));
            List<String> row = new ArrayList<>();
            String name =
                    results.study().reading(check.reading()).map(Reading::name).orElse(check.reading());
            boolean profile = result.lanes().values().stream().anyMatch(l -> l.curve() != null);
            row.add(profile ? name + ", " + check.rule().measure() : name);
            for (Source source : results.study().sources()) {
                CheckResult.Lane lane = result.lanes().get(source.id());
                row.add(source.id().equals(result.datum()) ? "datum" : lane == null ? "no data" : cell(check, lane));
            }
            row.add(check.rule().allowance(result.unit()));
            row.add(result.verdict().word());
            rows.add(row);
        }
        return text(rows);
    }

    private static String cell(Check check, CheckResult.Lane lane) {
        boolean share = lane.scale() > 0 && check.rule().allowance(lane.unit()).endsWith("%");
        return share
                ? number(100 * lane.relative()) + " %"
                : number(lane.unit().differenceFromSi(lane.difference())) + " "
                        + lane.unit().difference().symbol();
    }

    private static String number(double v) {
        return Figures.of(v, 3).plain(v);
    }

    private static String text(List<List<String>> rows) {
        int[] width = new int[rows.getFirst().size()];
        for (List<String> row : rows) {
            for (int i = 0; i < width.length; i++) {
                width[i] = Math.max(width[i], row.get(i).length());
            }
        }
        var out = new StringBuilder();
        for (List<String> row : rows) {
            var line = new StringBuilder();
            for (int i = 0; i < width.length; i++) {
                String pad = " ".repeat(width[i] - row.get(i).length());
                line.append(i == 0 || i == width.length - 1 ? row.get(i) + pad : pad + row.get(i))
                        .append("  ");
            }
            out.append(line.toString().stripTrailing()).append('\n');
        }
        return out.toString();
    }
}
