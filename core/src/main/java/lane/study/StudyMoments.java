package lane.study;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CancellationException;
import lane.base.LaneException;
import lane.base.Memo;
import lane.base.Work;
import lane.evaluation.EvaluationContext;
import lane.evaluation.StationResolver;
import lane.field.Run;
import lane.field.TimeSelector;
import lane.provenance.Provenance;
import lane.reading.Instant;
import lane.reading.Moments;
import lane.reading.Outcome;
import lane.reading.Reading;
import lane.reading.ReadingContext;
import org.jspecify.annotations.Nullable;

/**
 * The stored times of a run of a study. One is open at a time, the next is opened beside it; what was read stays, in the
 * {@link Journal}, as long as the files of its time look the same.
 */
final class StudyMoments implements Moments {
    private final Study study;
    private final Source.Simulation source;
    private final Map<String, Run> runs;
    private final Run run;
    private final Library library;
    private final StationResolver places;
    private final Memo memo;
    private final Work work;
    private final EvaluationContext lens;
    /** Told before a time is read. */
    private final Runnable reading;

    private @Nullable Answer last;
    private @Nullable Kept kept;

    private record Kept(Reading reading, Journal journal) {}

    /** What was read whole. */
    private record Answer(int time, Reading reading, Outcome made) {}

    StudyMoments(
            Study study,
            Source.Simulation source,
            Map<String, Run> runs,
            Library library,
            StationResolver places,
            Memo memo,
            Work work,
            EvaluationContext lens,
            Runnable reading) {
        this.reading = reading;
        this.study = study;
        this.source = source;
        this.runs = runs;
        run = java.util.Objects.requireNonNull(runs.get(source.id()));
        this.library = library;
        this.places = places;
        this.memo = memo;
        this.work = work;
        this.lens = lens;
    }

    @Override
    public List<Double> times() {
        return run.times();
    }

    /** What all times are known by. */
    Object key() {
        return List.of(source.regions(), source.treatment().at(null), library.recorded(source, run));
    }

    private Run at(int i) {
        double time = times().get(i);
        return time == run.time()
                ? run
                : places.turned(library.passing(source, new TimeSelector.At(time, 0), work), study.axis());
    }

    @Override
    public Outcome answer(int i, Reading asked) {
        Answer known = last;
        if (known != null && known.time == i && known.reading.equals(asked)) {
            return known.made;
        }
        reading.run();
        Outcome made;
        try {
            if (i + 1 < times().size()) {
                library.prepare(source, new TimeSelector.At(times().get(i + 1), 0));
            }
            Run then = at(i);
            var others = new LinkedHashMap<>(runs);
            others.put(source.id(), then);
            var beyond = new StudyBeyond(study, others, library, places, memo, work);
            made = asked.ask()
                    .read(
                            asked,
                            new ReadingContext(
                                    then,
                                    lens.with(beyond),
                                    places,
                                    id -> study.station(id).orElse(null),
                                    memo,
                                    work,
                                    new Provenance(then.inputs(), List.of()),
                                    NONE,
                                    false));
        } catch (CancellationException e) {
            throw e;
        } catch (LaneException e) {
            made = new Outcome.Absent(e);
        }
        last = new Answer(i, asked, made);
        return made;
    }

    @Override
    public Instant instant(int i, Reading reading) {
        Journal journal = journal(reading);
        double time = times().get(i);
        return journal.of(time).orElseGet(() -> {
            Instant made = Instant.of(answer(i, reading));
            journal.keep(time, made);
            return made;
        });
    }

    /** Of numbers that rest on more than the run itself nothing is kept. */
    private Journal journal(Reading reading) {
        Kept known = kept;
        if (known == null || !known.reading.equals(reading)) {
            var beyond = new StudyBeyond(study, runs, library, places, memo, work);
            Needs needs = Needs.of(study, reading, lens.with(beyond), beyond);
            boolean alone = !needs.beyond() && needs.sheets().isEmpty();
            known = new Kept(
                    reading,
                    !alone
                            ? Journal.NONE
                            : library.journal(
                                    source,
                                    List.of(
                                            reading.ask(),
                                            needs.stations(),
                                            needs.quantities(),
                                            needs.units(),
                                            study.axis(),
                                            source.partFiles(),
                                            source.regions(),
                                            source.treatment().at(null))));
            kept = known;
        }
        return known.journal;
    }
}
