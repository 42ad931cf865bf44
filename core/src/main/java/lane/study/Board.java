package lane.study;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Collectors;
import lane.base.Figures;
import lane.base.Plain;
import lane.check.Check;
import lane.check.CheckResult;
import lane.check.Verdict;
import lane.reading.AskKind;
import lane.reading.Reading;
import lane.station.Station;

/** Which checks stand on the board, in which order and under which headings; and what they say in one line. */
public final class Board {
    /** How many checks the line of the summary names. */
    private static final int NAMED = 3;

    private Board() {}

    /** Which ones. */
    public enum Show {
        ALL("all"),
        OPEN("not within"),
        OUT("out"),
        UNDECIDED("undecided"),
        NO_DATA("no data"),
        WITHIN("within");

        private final String word;

        Show(String word) {
            this.word = word;
        }

        public String word() {
            return word;
        }

        boolean takes(Verdict v) {
            return this == ALL || this == OPEN && v != Verdict.WITHIN || name().equals(v.name());
        }
    }

    /** In which order. */
    public enum Order {
        STUDY("as in the study"),
        WORST("worst first"),
        NAME("by name");

        private final String word;

        Order(String word) {
            this.word = word;
        }

        public String word() {
            return word;
        }
    }

    /** Under which headings. */
    public enum Grouping {
        NONE("no headings"),
        GROUP("by group"),
        STATION("by station"),
        KIND("by kind of reading");

        private final String word;

        Grouping(String word) {
            this.word = word;
        }

        public String word() {
            return word;
        }
    }

    /** What somebody wants to see. */
    public record Look(Show show, Order order, Grouping grouping, String search) {
        public static final Look ALL = new Look(Show.ALL, Order.STUDY, Grouping.NONE, "");

        public Look show(Show other) {
            return new Look(other, order, grouping, search);
        }

        public Look order(Order other) {
            return new Look(show, other, grouping, search);
        }

        public Look grouping(Grouping other) {
            return new Look(show, order, other, search);
        }

        public Look search(String other) {
            return new Look(show, order, grouping, other);
        }
    }

    /** Checks under one heading; blank for none. */
    public record Section(String name, List<Check> checks) {}

    public static List<Section> of(Results results, Look look) {
        String wanted = look.search.strip().toLowerCase(Locale.ROOT);
        List<Check> some = new ArrayList<>(results.study().checks().stream()
                .filter(c -> look.show.takes(verdict(results, c))
                        || !results.checks().containsKey(c.id()))
                .filter(c -> wanted.isEmpty() || words(results, c).contains(wanted))
                .toList());
        switch (look.order) {
            case WORST ->
                some.sort(Comparator.comparingInt((Check c) -> rank(verdict(results, c)))
                        .thenComparing(c -> -reach(results, c)));
            case NAME -> some.sort(Comparator.comparing(c -> name(results.study(), c), String.CASE_INSENSITIVE_ORDER));
            case STUDY -> {}
        }
        Map<String, List<Check>> sections = new LinkedHashMap<>();
        some.forEach(c -> sections.computeIfAbsent(heading(results.study(), c, look.grouping), k -> new ArrayList<>())
                .add(c));
        return sections.entrySet().stream()
                .map(e -> new Section(e.getKey(), List.copyOf(e.getValue())))
                .toList();
    }

    /** All that a check is found by. */
    private static String words(Results results, Check c) {
        Study study = results.study();
        return (name(study, c) + " " + c.group() + " " + c.rule().measure() + " "
                        + verdict(results, c).word() + " " + stations(study, c) + " " + kind(study, c))
                .toLowerCase(Locale.ROOT);
    }

    /** Name of what is checked. */
    public static String name(Study study, Check c) {
        return study.reading(c.reading()).map(Reading::name).orElse(c.reading() + " (deleted)");
    }

    private static String stations(Study study, Check c) {
        return study.reading(c.reading()).stream()
                .flatMap(r -> r.stations().stream())
                .map(s -> study.station(s).map(Station::name).orElse(s))
                .collect(Collectors.joining(", "));
    }

    private static String kind(Study study, Check c) {
        return study.reading(c.reading())
                .map(r -> AskKind.ALL.of(r.ask()).word())
                .orElse("");
    }

    private static String heading(Study study, Check c, Grouping by) {
        return switch (by) {
            case NONE -> "";
            case GROUP -> c.group().isBlank() ? "Without a group" : c.group();
            case STATION -> stations(study, c).isEmpty() ? "Without a station" : stations(study, c);
            case KIND -> kind(study, c);
        };
    }

    private static Verdict verdict(Results results, Check c) {
        CheckResult r = results.checks().get(c.id());
        return r == null ? Verdict.NO_DATA : r.verdict();
    }

    private static int rank(Verdict v) {
        return switch (v) {
            case OUT -> 0;
            case UNDECIDED -> 1;
            case NO_DATA -> 2;
            case WITHIN -> 3;
        };
    }

    /** How much of what is allowed the worst judged lane uses up. */
    private static double reach(Results results, Check c) {
        CheckResult r = results.checks().get(c.id());
        return r == null
                ? 0
                : r.lanes().values().stream()
                        .filter(l -> l.verdict() != null && l.allowed() > 0)
                        .mapToDouble(l -> Math.abs(l.difference()) / l.allowed())
                        .max()
                        .orElse(0);
    }

    /** How many checks there are, how many are within, and what is out by how much. */
    public static String summary(Results results) {
        List<Check> checks = results.study().checks();
        if (checks.isEmpty()) {
            return "No checks.";
        }
        Map<Verdict, List<Check>> by = checks.stream().collect(Collectors.groupingBy(c -> verdict(results, c)));
        var out = new StringBuilder(Plain.count(checks.size(), "check")).append(": ");
        List<String> counts = new ArrayList<>();
        for (Verdict v : List.of(Verdict.WITHIN, Verdict.OUT, Verdict.UNDECIDED, Verdict.NO_DATA)) {
            if (by.containsKey(v)) {
                counts.add(by.get(v).size() + " " + v.word());
            }
        }
        out.append(String.join(", ", counts)).append('.');
        List<Check> bad = new ArrayList<>(by.getOrDefault(Verdict.OUT, List.of()));
        long accepted = bad.stream()
                .filter(c -> c.decision() != null && c.decision().accepted())
                .count();
        bad.sort(Comparator.comparing(c -> -reach(results, c)));
        if (!bad.isEmpty()) {
            out.append(" Out: ")
                    .append(bad.stream()
                            .limit(NAMED)
                            .map(c -> name(results.study(), c) + by(results, c))
                            .collect(Collectors.joining("; ")));
            out.append(bad.size() > NAMED ? "; and " + (bad.size() - NAMED) + " more." : ".");
            if (accepted > 0) {
                out.append(' ')
                        .append(accepted)
                        .append(accepted == 1 ? " is" : " are")
                        .append(" accepted.");
            }
        }
        return out.toString();
    }

    /** By how much the worst judged lane is out. */
    private static String by(Results results, Check c) {
        CheckResult r = results.checks().get(c.id());
        CheckResult.Lane worst = r == null
                ? null
                : r.lanes().values().stream()
                        .filter(l -> l.verdict() == Verdict.OUT)
                        .max(Comparator.comparingDouble(l -> Math.abs(l.difference()) / Math.max(l.allowed(), 1e-300)))
                        .orElse(null);
        if (worst == null) {
            return "";
        }
        // Of several measures the one that is out, which need not be the first.
        CheckResult.Measured out = Math.abs(worst.difference()) <= worst.allowed()
                ? worst.evidence().measures().stream()
                        .filter(m -> m.verdict() == Verdict.OUT)
                        .findFirst()
                        .orElse(null)
                : null;
        if (out != null) {
            boolean share = out.norm().share();
            double v = share ? out.difference() : worst.unit().differenceFromSi(out.difference());
            return " by " + out.norm().symbol() + " " + Figures.of(v, 3).whole(v)
                    + (share ? "" : " " + worst.unit().difference().symbol()) + " (allowed " + out.allowance() + ")";
        }
        String allowed = c.rule().allowance(worst.unit());
        double shown = allowed.endsWith("%") && worst.scale() > 0
                ? 100 * Math.abs(worst.relative())
                : Math.abs(worst.unit().differenceFromSi(worst.difference()));
        String unit = allowed.endsWith("%") && worst.scale() > 0
                ? "%"
                : worst.unit().difference().symbol();
        return " by " + Figures.of(shown, 3).whole(shown) + " " + unit
                + (allowed.isEmpty() ? "" : " (allowed " + allowed + ")");
    }
}
