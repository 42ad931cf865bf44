package lane.study;

import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CancellationException;
import java.util.function.Function;
import lane.base.Fault;
import lane.base.LaneException;
import lane.base.Work;
import lane.field.Gathering;
import lane.field.Partition;
import lane.field.Run;
import lane.reading.Outcome;
import lane.reading.Reading;
import lane.reading.ReadingContext;
import lane.station.Station;

/**
 * Asks a run that is read in pieces. Each piece is opened once for all that is asked, and again only for what needs a number of
 * the whole first, such as a standard deviation its mean. Answers are put together in the order of the pieces, whatever the
 * number of threads.
 */
final class Piecewise {
    private final Study study;
    private final Partition run;
    private final Library library;
    private final Work work;

    Piecewise(Study study, Partition run, Library library, Work work) {
        this.study = study;
        this.run = run;
        this.library = library;
        this.work = work;
    }

    /** @param on what a reading may look up, on a piece */
    Map<Reading, Outcome> answer(Collection<Reading> asked, Function<Run, ReadingContext> on) {
        var out = new LinkedHashMap<Reading, Outcome>();
        var open = new LinkedHashMap<Reading, Gathering>();
        for (Reading r : asked) {
            Optional<LaneException> refused = refused(r);
            refused.ifPresent(e -> out.put(r, new Outcome.Absent(e)));
            if (refused.isEmpty()) {
                open.put(r, new Gathering(run.size()));
            }
        }
        for (int round = 0; !open.isEmpty(); round++) {
            var before = new LinkedHashMap<Reading, Integer>();
            open.forEach((r, so) -> before.put(r, so.given()));
            for (int k = 0; k < run.size() && !open.isEmpty(); k++) {
                work.poll();
                work.progress(
                        "Piece " + (k + 1) + " of " + run.size() + (round == 0 ? "" : ", round " + (round + 1)),
                        (double) k / run.size());
                Run piece = run.piece(k, work);
                for (Map.Entry<Reading, Gathering> e : List.copyOf(open.entrySet())) {
                    work.poll();
                    ask(e.getKey(), e.getValue(), k, piece, on).ifPresent(made -> {
                        out.put(e.getKey(), made);
                        open.remove(e.getKey());
                    });
                }
            }
            before.forEach((r, given) -> {
                Gathering so = open.get(r);
                if (so != null && so.given() == given) {
                    open.remove(r);
                    out.put(r, new Outcome.Absent(disagree(r)));
                }
            });
        }
        return out;
    }

    private static LaneException disagree(Reading reading) {
        return new LaneException("The pieces of the run do not agree on what reading \"" + reading.name()
                + "\" asks of them; state that the run is held whole.");
    }

    private Optional<Outcome> ask(Reading reading, Gathering so, int k, Run piece, Function<Run, ReadingContext> on) {
        try {
            return so.ask(k, g -> reading.ask().read(reading, on.apply(piece.piece(g))));
        } catch (LaneException e) {
            return Optional.of(new Outcome.Absent(e));
        } catch (CancellationException e) {
            throw e;
        } catch (RuntimeException e) {
            // It costs the one answer, and not the others that are asked of the same piece.
            String doing = "Reading \"" + reading.name() + "\"";
            return Optional.of(new Outcome.Absent(Fault.PROGRAM, library.fault(doing, e)));
        }
    }

    private Optional<LaneException> refused(Reading reading) {
        if (!reading.ask().inPieces()) {
            return Optional.of(new LaneException(
                    Fault.NOT_READ,
                    "Reading \"" + reading.name()
                            + "\" needs the run whole, since it looks at what hangs together or lies"
                            + " beside; it is read in " + run.size()
                            + " pieces. State that the run is held whole, if the memory suffices."));
        }
        return reading.ask().stations().stream()
                .flatMap(s -> study.station(s).stream())
                .filter(s -> !s.shape().inPieces())
                .findFirst()
                .map(s -> refused(reading, s));
    }

    private LaneException refused(Reading reading, Station station) {
        return new LaneException(
                Fault.NOT_READ,
                "Reading \"" + reading.name() + "\" is taken on the " + station.word() + " \"" + station.name()
                        + "\", which is not made of a run that is read in " + run.size()
                        + " pieces. Take another station (of a line, a number of samples), or state that the run is held"
                        + " whole, if the memory suffices.");
    }
}
