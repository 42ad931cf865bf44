package lane.desk.quantities;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Collectors;
import lane.desk.Session;
import lane.evaluation.Beyond;
import lane.field.Field;
import lane.field.Run;
import lane.formula.Functions;
import lane.formula.Lexer;
import lane.formula.Printer;
import lane.formula.Spot;
import lane.formula.Token;
import lane.quantity.Quantity;
import lane.station.Frame;
import lane.study.Source;
import org.jspecify.annotations.Nullable;

/** What may be typed next in a formula, and the function that the caret stands in. */
final class Completion {
    /**
     * A proposal.
     *
     * @param text put in place of the word
     * @param kind and {@code note}: shown beside it
     */
    record Proposal(String text, String kind, String note) {}

    /** @param from where the word begins that a proposal replaces */
    record State(int from, List<Proposal> proposals, Functions.@Nullable Function inside) {}

    private Completion() {}

    static State of(Session session, String formula, int caret, String self) {
        List<Token> tokens = Lexer.tokens(formula.substring(0, caret));
        Token last = tokens.size() > 1 ? tokens.get(tokens.size() - 2) : null;
        boolean word = last != null
                && last.span().to() == caret
                && (last.kind() == Token.Kind.NAME
                        || last.kind() == Token.Kind.WRONG && last.text().startsWith("\""));
        String typed = word && last != null ? last.text().replace("\"", "").toLowerCase(Locale.ROOT) : "";
        int before = tokens.size() - (word ? 3 : 2);
        String lead = before >= 0 ? tokens.get(before).text() : "";
        List<Proposal> all =
                switch (lead) {
                    case "over" -> stations(session);
                    case "of" -> lanes(session);
                    case "in" -> frames(session);
                    default -> names(session, self);
                };
        List<Proposal> fit = all.stream()
                .filter(p -> !typed.isEmpty() || !lead.isEmpty() && "over of in".contains(lead))
                .filter(p -> p.text().replace("\"", "").toLowerCase(Locale.ROOT).contains(typed))
                .sorted(java.util.Comparator.comparing((Proposal p) ->
                        !p.text().replace("\"", "").toLowerCase(Locale.ROOT).startsWith(typed)))
                .limit(12)
                .toList();
        boolean done = fit.size() == 1 && fit.getFirst().text().equals(word && last != null ? last.text() : "");
        return new State(word && last != null ? last.span().from() : caret, done ? List.of() : fit, inside(tokens));
    }

    /** The innermost call that is not closed. */
    private static Functions.@Nullable Function inside(List<Token> tokens) {
        int open = 0;
        for (int i = tokens.size() - 1; i > 0; i--) {
            String t = tokens.get(i).text();
            if (t.equals(")")) {
                open++;
            } else if (t.equals("(") && open-- == 0) {
                return Functions.of(tokens.get(i - 1).text());
            }
        }
        return null;
    }

    private static List<Proposal> stations(Session session) {
        Beyond beyond = session.lens().beyond();
        return session.study().stations().stream()
                .filter(s -> beyond.extent(s.name()) >= 0)
                .map(s -> new Proposal(Printer.name(s.name()), s.word(), ""))
                .toList();
    }

    private static List<Proposal> lanes(Session session) {
        return session.study().sources().stream()
                .filter(s -> s instanceof Source.Reference
                        || session.results().runs().containsKey(s.id()))
                .map(s -> new Proposal(Printer.name(s.name()), word(s), ""))
                .toList();
    }

    private static String word(Source source) {
        return switch (source) {
            case Source.Simulation _ -> "run";
            case Source.Reference r -> r.kind() == Source.Kind.THEORY ? "theory" : "measurement";
        };
    }

    private static List<Proposal> frames(Session session) {
        return session.study().frames().stream()
                .map(Frame::name)
                .map(n -> new Proposal(Printer.name(n), "frame", ""))
                .toList();
    }

    private static List<Proposal> names(Session session, String self) {
        List<Proposal> out = new ArrayList<>();
        for (Quantity q : session.study().quantities()) {
            if (!q.name().equals(self)) {
                out.add(new Proposal(Printer.name(q.name()), "quantity", q.unit()));
            }
        }
        fields(session).forEach((name, note) -> {
            if (out.stream().noneMatch(p -> p.text().equals(Printer.name(name)))) {
                out.add(new Proposal(Printer.name(name), "field", note));
            }
        });
        session.lens().beyond().names().forEach(n -> out.add(new Proposal(Printer.name(n), "reading", "")));
        for (String n : List.of("x", "y", "z", "radius", "angle", "axial", "time", "pi")) {
            out.add(new Proposal(n, "built in", ""));
        }
        for (Spot s : Spot.values()) {
            out.add(new Proposal(s.word(), "built in", ""));
        }
        Functions.all().forEach(f -> out.add(new Proposal(f.name() + "(", "function", f.signature())));
        return out;
    }

    /** Fields of all runs, with the runs that lack them. */
    static Map<String, String> fields(Session session) {
        Map<String, List<String>> have = new LinkedHashMap<>();
        Map<String, Run> runs = session.results().runs();
        runs.forEach((id, run) -> {
            run.fields().stream().map(Field::name).forEach(n -> add(have, n, id));
            run.parts().forEach(p -> p.fields().stream().map(Field::name).forEach(n -> add(have, n, id)));
        });
        Map<String, String> out = new LinkedHashMap<>();
        have.forEach((name, lanes) -> {
            String lack = runs.keySet().stream()
                    .filter(id -> !lanes.contains(id))
                    .map(id -> session.study().source(id).map(Source::name).orElse(id))
                    .collect(Collectors.joining(", "));
            out.put(name, lack.isEmpty() ? "" : "not in " + lack);
        });
        return out;
    }

    private static void add(Map<String, List<String>> have, String name, String lane) {
        List<String> lanes = have.computeIfAbsent(name, n -> new ArrayList<>());
        if (!lanes.contains(lane)) {
            lanes.add(lane);
        }
    }
}
