package lane.reading;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Set;
import java.util.function.Function;
import java.util.function.Supplier;
import lane.base.Fault;
import lane.base.LaneException;
import lane.base.Memo;
import lane.base.Plain;
import lane.base.Sum;
import lane.evaluation.EvaluationContext;
import lane.evaluation.MeshSpan;
import lane.evaluation.OpenEdges;
import lane.evaluation.SurfaceIntegral;
import lane.field.Gather;
import lane.field.Part;
import lane.field.Run;
import lane.mesh.Point;
import lane.provenance.Method;
import lane.provenance.Provenance;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/** Computes a balance: first whether the region is closed, then its signed terms and their sum. */
public final class BalanceReader {
    /** A region whose area vectors leave more than this share of its area is refused. */
    public static final double OPEN = 1e-6;

    private static final Method CLOSED = new Method("closed when area vectors and edges cancel", 1);
    private static final Method SUM = new Method("terms of surfaces, their sum is the residual", 1);

    private BalanceReader() {}

    private record RimKey(List<Object> parts, MeshSpan span) {}

    /** @param partOf the run's parts behind a station's key */
    public static Balance read(
            Run run,
            Reading reading,
            Function<String, List<Part>> partOf,
            EvaluationContext lens,
            Provenance trail,
            Memo memo) {
        Function<BalanceOf.Term, Tally> number = term -> TallyReader.read(
                run,
                term.stations().stream().flatMap(s -> partOf.apply(s).stream()).toList(),
                term.measure(),
                lens,
                "",
                Provenance.EMPTY,
                memo);
        return read(run, reading, Where.UNSAID, partOf, number, lens, trail, memo);
    }

    static Balance read(
            Run run,
            Reading reading,
            Where where,
            Function<String, List<Part>> partOf,
            Function<BalanceOf.Term, Tally> number,
            EvaluationContext lens,
            Provenance trail,
            Memo memo) {
        var ask = (BalanceOf) reading.ask();
        if (ask.terms().isEmpty()) {
            throw new LaneException("Balance \"" + reading.name() + "\" has no terms; add at least one.");
        }
        var all = new LinkedHashSet<Part>();
        ask.terms().forEach(t -> t.stations().forEach(s -> all.addAll(partOf.apply(s))));
        ask.closedBy().forEach(s -> all.addAll(partOf.apply(s)));
        List<Part> bounds = List.copyOf(all);
        MeshSpan span = MeshSpan.of(run, lens.axis());
        Gather gather = run.gather();
        var closed = new double[1];
        var open = new OpenEdges[1];
        Runnable area = () -> closed[0] = new SurfaceIntegral(run, bounds, lens, memo).closure();
        Runnable edges = () -> open[0] = gather.whole()
                ? memo.of(new RimKey(bounds.stream().map(Part::key).toList(), span), () -> OpenEdges.of(bounds, span))
                : OpenEdges.of(run, bounds, span);
        List<Tally> tallies = new ArrayList<>();
        Runnable taken = () -> tallies.addAll(gather.all(ask.terms().stream()
                .<Supplier<Tally>>map(t -> () -> number.apply(t))
                .toList()));
        // In pieces all is asked at once; else what is open says so before a term is taken.
        gather.each(gather.whole() ? List.of(area, edges) : List.of(area, edges, taken));
        double closure = closed[0];
        OpenEdges rim = open[0];
        if (closure > OPEN || rim.edges() > 0) {
            throw new LaneException(Fault.NOT_CLOSED, open(run, reading, all, closure, rim));
        }
        if (gather.whole()) {
            taken.run();
        }
        List<Balance.Term> terms = new ArrayList<>();
        var sum = new Sum();
        double scale = 0;
        Unit unit = null;
        var placed = new LinkedHashMap<String, Object>(where.definitions());
        placed.put("parts", String.join(", ", all.stream().map(Part::name).toList()));
        placed.put("closure", closure);
        Provenance full = trail.reading(where.files()).then("station", CLOSED, "parts {parts}", placed);
        var settings = new LinkedHashMap<String, Object>();
        for (int i = 0; i < tallies.size(); i++) {
            BalanceOf.Term term = ask.terms().get(i);
            Tally tally = tallies.get(i);
            if (unit == null) {
                unit = Outcome.shown(reading.unit(), tally.unit(), "Balance \"" + reading.name() + "\"");
            } else {
                tally.unit()
                        .requireComparable(unit, "Term \"" + term.name() + "\" of balance \"" + reading.name() + "\"");
            }
            double value = term.factor() * tally.value();
            terms.add(new Balance.Term(
                    term.name(),
                    tally.note().replaceFirst("^over ", ""),
                    value,
                    tally.estimate().uncertainty()));
            sum.add(value);
            scale = Math.max(scale, Math.abs(value));
            settings.put(term.name(), term);
            full = inherited(full, tally.trail());
        }
        settings.put("positive", ask.positive());
        scale = scale(ask, terms, unit, scale);
        settings.put("scale", ask.against().word());
        String missing = ask.conserved().needs(ask.terms()).stream()
                .filter(n -> n.state() == Conserved.State.MISSING)
                .map(Conserved.Need::what)
                .collect(java.util.stream.Collectors.joining(", "));
        if (ask.conserved() != Conserved.UNSAID) {
            settings.put("balance of", ask.conserved().word());
            settings.put("missing", missing.isBlank() ? "none" : missing);
        }
        settings.put("balance", reading.name());
        settings.put("count", terms.size());
        full = full.then("reading", SUM, "balance \"{balance}\", {count} terms", settings);
        return new Balance(
                terms,
                sum.value(),
                scale,
                ask.against().word(),
                closure,
                Objects.requireNonNull(unit),
                ask.positive(),
                missing,
                full);
    }

    private static double scale(BalanceOf ask, List<Balance.Term> terms, @Nullable Unit unit, double largest) {
        BalanceOf.Against against = ask.against();
        if (against.value() > 0) {
            return Objects.requireNonNull(unit).factor() * against.value();
        }
        if (against.term().isBlank()) {
            return largest;
        }
        return terms.stream()
                .filter(t -> t.name().equals(against.term()))
                .mapToDouble(t -> Math.abs(t.value()))
                .findFirst()
                .orElseThrow(() -> new LaneException(
                        Fault.MISSING,
                        "The residual is compared with the term \"" + against.term()
                                + "\", which there is not; choose another, or the largest."));
    }

    /** What a term's number rests on, besides its station, which stands here already. */
    private static Provenance inherited(Provenance trail, Provenance term) {
        Provenance out = trail.with(term);
        for (Provenance.Step step : term.steps()) {
            boolean known = trail.steps().contains(step);
            if (!known && (step.stop().equals("source") || step.stop().equals("quantity"))) {
                out = out.then(step);
            }
        }
        return out;
    }

    private static String open(Run run, Reading reading, Set<Part> have, double closure, OpenEdges rim) {
        List<String> missing = run.parts().stream()
                .filter(p -> !have.contains(p))
                .map(Part::name)
                .toList();
        Point near = rim.place();
        String how = rim.edges() > 0 && near != null
                ? String.format(
                        Locale.ROOT,
                        "%d edges of its parts have no neighbour, one near (%.4g, %.4g, %.4g) m",
                        rim.edges(),
                        near.x(),
                        near.y(),
                        near.z())
                : String.format(Locale.ROOT, "%.2g of its area has no opposite side", closure);
        return "The region of balance \"" + reading.name() + "\" is open: " + how
                + (missing.isEmpty()
                        ? "; the parts do not close the run."
                        : "; add what bounds it, among the run's parts it lacks " + Plain.names(missing) + ".");
    }
}
