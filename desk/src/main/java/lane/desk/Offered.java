package lane.desk;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import lane.evaluation.BoundQuantity;
import lane.evaluation.EvaluationContext;
import lane.field.Run;
import lane.formula.Type;
import lane.quantity.FieldQuantity;
import lane.quantity.Quantity;
import lane.study.Results;
import lane.study.Study;

/**
 * All that can be asked for: what a study defines, then what stands in the files, with components and magnitudes. What
 * type each has in which run is found out once for as long as neither definitions nor runs change: every form asks it of
 * every quantity.
 */
public final class Offered {
    private final Study study;
    private final Results results;
    private final EvaluationContext lens;
    private final List<Quantity> quantities;
    private final Map<Quantity, List<Type>> types = new HashMap<>();
    private final Map<Quantity, Boolean> single = new HashMap<>();

    private Offered(Study study, Results results) {
        this.study = study;
        this.results = results;
        lens = EvaluationContext.of(
                study.quantities(), study.units(), study.axis(), results.lens().beyond());
        List<Quantity> all = new ArrayList<>(study.quantities());
        Set<String> defined = study.quantities().stream()
                .flatMap(q -> Stream.of(q.id(), q.name()))
                .collect(Collectors.toSet());
        fields().forEach((name, components) -> all.addAll(FieldQuantity.choices(name, components, defined)));
        quantities = List.copyOf(all);
    }

    /** What stands for a study now: this, where nothing that it rests on changed. */
    static Offered of(Offered before, Study study, Results results) {
        return before.standsFor(study, results) ? before : new Offered(study, results);
    }

    static Offered first(Study study, Results results) {
        return new Offered(study, results);
    }

    // Results that were computed anew are other ones, whatever they say.
    @SuppressWarnings("ReferenceEquality")
    private boolean standsFor(Study now, Results then) {
        return results == then
                && study.quantities().equals(now.quantities())
                && study.units().equals(now.units())
                && study.axis().equals(now.axis());
    }

    /** How quantities are seen: as the study defines them, with what the last results know beyond the place. */
    public EvaluationContext lens() {
        return lens;
    }

    public List<Quantity> quantities() {
        return quantities;
    }

    /** Those that have a type of a kind in some run. */
    public List<Quantity> that(Predicate<Type> is) {
        return quantities.stream().filter(q -> is(q, is)).toList();
    }

    /** Whether some run can compute a quantity, and its type is of a kind there. */
    public boolean is(Quantity quantity, Predicate<Type> is) {
        return types.computeIfAbsent(quantity, this::types).stream().anyMatch(is);
    }

    /** Whether it is one number a lane, told by its formula without computing it. */
    public boolean single(Quantity quantity) {
        return single.computeIfAbsent(quantity, q -> runs().anyMatch(r -> BoundQuantity.single(r, q, lens)));
    }

    private List<Type> types(Quantity quantity) {
        return runs().flatMap(r -> BoundQuantity.type(r, quantity, lens).stream())
                .toList();
    }

    private Stream<Run> runs() {
        return results.known();
    }

    /** Fields of the runs and of their parts with their components, in the order of the files. */
    public Map<String, Integer> fields() {
        var out = new LinkedHashMap<String, Integer>();
        runs().forEach(run -> {
            run.fields().forEach(f -> out.putIfAbsent(f.name(), f.components()));
            run.parts().forEach(p -> p.fields().forEach(f -> out.putIfAbsent(f.name(), f.components())));
        });
        return out;
    }
}
