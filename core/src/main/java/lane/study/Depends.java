package lane.study;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import lane.base.Hashed;
import lane.base.LaneException;
import lane.base.Memo;
import lane.evaluation.BoundQuantity;
import lane.evaluation.EvaluationContext;
import lane.field.Run;
import lane.provenance.Provenance;
import lane.quantity.FieldUnit;
import lane.quantity.Quantity;
import lane.reading.Reading;
import lane.station.Station;

/** What formulas that look beyond the place take from there, found out once an evaluation. */
final class Depends {
    private record Of(Object run, Quantity quantity) {}

    private final Map<Of, Object> known = new HashMap<>();
    private final IdentityHashMap<Reading, Needs> needs = new IdentityHashMap<>();
    private final IdentityHashMap<Reading, Hashed> asked = new IdentityHashMap<>();
    private final Map<List<Object>, Provenance> trails = new HashMap<>();
    private final Study of;
    private final StudyBeyond study;
    private final EvaluationContext lens;
    private final Memo memo;

    Depends(Study of, StudyBeyond study, EvaluationContext lens, Memo memo) {
        this.of = of;
        this.study = study;
        this.lens = lens;
        this.memo = memo;
    }

    /** What of the study a reading rests on: the same for all lanes. */
    Needs needs(Reading reading) {
        return needs.computeIfAbsent(reading, r -> Needs.of(of, r, lens, study));
    }

    /** The same as a key, which is the same object as long as it says the same. */
    Hashed asked(Reading reading) {
        return asked.computeIfAbsent(reading, r -> {
            Needs n = needs(r);
            return key(r, n.stations(), n.quantities(), n.units());
        });
    }

    /** The same for a reference, which asks no quantity. */
    synchronized Hashed asked(Reading reading, List<Station> stations) {
        return key(reading, stations, List.of(), List.of());
    }

    private Hashed key(Reading reading, List<Station> stations, List<Quantity> quantities, List<FieldUnit> units) {
        Hashed now = Hashed.of(List.of(reading, stations, quantities, units, of.axis()));
        return memo.of(now, () -> now);
    }

    /**
     * All that a number rests on but for the content of its files and the time, by value: the same in another program and on
     * another machine.
     */
    List<Object> definition(Reading reading, Source.Simulation source) {
        Needs n = needs(reading);
        List<Object> out = new ArrayList<>(List.of(
                reading.ask(),
                n.stations(),
                n.quantities(),
                n.units(),
                of.axis(),
                source.partFiles(),
                source.regions(),
                source.treatment().at(null)));
        if (!alone(reading)) {
            // It may look at anything, and names of lanes and readings decide what formulas mean.
            out.addAll(List.of(source.id(), of.recipes(), of.sources(), of.units(), of.quantities(), of.frames()));
            out.addAll(List.of(of.stations(), of.readings()));
        }
        return out;
    }

    /**
     * The same for an answer with its trail.
     *
     * @param when the time, or the choice of one
     */
    List<Object> definition(Reading reading, Source.Simulation source, Object when) {
        List<Object> out = definition(reading, source);
        out.addAll(List.of(reading.name(), reading.unit(), when.toString()));
        return out;
    }

    /** Whether it rests on the one run that it is taken on, and on nothing else of the study. */
    boolean alone(Reading reading) {
        return !needs(reading).beyond()
                && reading.ask().readings().isEmpty()
                && reading.ask().lanes().isEmpty();
    }

    /** How a run's trail begins: the same for all readings. */
    Provenance trail(Run run, Source.Simulation source, boolean overTime) {
        return trails.computeIfAbsent(
                List.of(source.id(), run.key(), overTime), k -> Facts.trail(run, source, overTime));
    }

    /** What a lane's run is known by. */
    Object key(String lane) {
        Run run = study.run(lane);
        return run == null ? "no run of " + lane : run.key();
    }

    /** All that there is, where it cannot be told. */
    Object of(Run run, Quantity quantity, EvaluationContext lens) {
        var of = new Of(run.key(), quantity);
        Object there = known.get(of);
        if (there != null) {
            return there;
        }
        // What needs itself on the way meets all that there is.
        known.put(of, lens.beyond().key());
        Object found;
        try {
            found = BoundQuantity.of(run, quantity, lens).depends();
        } catch (LaneException e) {
            found = lens.beyond().key();
        }
        known.put(of, found);
        return found;
    }
}
