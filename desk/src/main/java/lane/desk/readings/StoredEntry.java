package lane.desk.readings;

import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import lane.evaluation.StoredValues.At;
import lane.measure.Measure;
import lane.measure.Stored;
import lane.measure.Stored.Take;

/** See {@link Stored}: numbers and sums over nodes and cells. */
public final class StoredEntry implements MeasureEntry {
    @Override
    public String word() {
        return "stored";
    }

    @Override
    public Class<Stored> type() {
        return Stored.class;
    }

    @Override
    public List<Choice> choices() {
        // Means, integrals and extremes stand in the choice once; whose values they are of is set with them.
        return Stream.of(Take.COUNT, Take.PIECES, Take.SUM)
                .map(t -> new Choice(
                        title(t),
                        s -> t.ofValues()
                                ? MeasureChoices.mean(s).map(m -> new Stored(t, At.CELLS, m.quantity(), ""))
                                : Optional.of(new Stored(t, At.CELLS, "", "")),
                        MeasureChoices.needs(false, false)))
                .toList();
    }

    private static String title(Take take) {
        return switch (take) {
            case COUNT -> "number of nodes or cells";
            case PIECES -> "number of pieces";
            case SUM -> "sum over nodes or cells";
            case MEAN, SIZE_MEAN -> "mean";
            case INTEGRAL -> "integral";
            case LEAST -> "least value";
            case GREATEST -> "greatest value";
        };
    }

    @Override
    public String title(Measure measure) {
        return title(((Stored) measure).take());
    }

    @Override
    public String words(Measure measure, String what) {
        var s = (Stored) measure;
        String of = s.take() == Take.SIZE_MEAN ? Take.MEAN.word() : s.take().word();
        return of
                + (what.isEmpty() ? "" : " of " + what)
                + s.by().map(b -> " " + b.word()).orElse(" over " + where(s.at()));
    }

    private static String where(At at) {
        return at == At.NODES ? "nodes" : "cells";
    }

    @Override
    public void rows(MeasureForm form, Measure measure) {
        var s = (Stored) measure;
        if (!s.take().ofValues()) {
            form.choice(
                    "Over",
                    List.of(At.values()),
                    s.at(),
                    StoredEntry::where,
                    at -> new Stored(s.take(), at, s.quantity(), s.condition()));
        }
        if (s.take().ofValues()) {
            form.scalar(s.quantity(), q -> new Stored(s.take(), s.at(), q, s.condition()));
        }
        form.optional("where", s.condition(), c -> new Stored(s.take(), s.at(), s.quantity(), c));
    }
}
