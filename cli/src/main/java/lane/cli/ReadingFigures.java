package lane.cli;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.stream.Collectors;
import lane.base.Plain;
import lane.formats.ledger.Export.Figure;
import lane.formats.ledger.LedgerWriter;
import lane.picture.Export;
import lane.picture.Palette;
import lane.reading.Outcome;
import lane.reading.Reading;
import lane.study.Results;
import lane.study.Source;
import lane.study.Study;

/** A figure of each reading that has a curve or a number, on paper, with a caption made from what it shows. */
public final class ReadingFigures implements LedgerWriter.Drawing {
    private static final int WIDE = 640;
    private static final int TALL = 420;
    /** A number of a few lanes needs less room. */
    private static final int LOW = 240;

    @Override
    public List<Figure> figures(Results results) {
        List<Figure> out = new ArrayList<>();
        Set<String> taken = new HashSet<>();
        for (Reading reading : results.study().readings()) {
            Drawn.of(results, reading, Palette.LIGHT).ifPresent(drawn -> {
                int tall = reading.curve() ? TALL : LOW;
                var svg = new ByteArrayOutputStream();
                var png = new ByteArrayOutputStream();
                try {
                    Export.svg(WIDE, tall, g -> drawn.on(g, WIDE, tall), svg);
                    Export.png(Export.image(WIDE, tall, 2, g -> drawn.on(g, WIDE, tall)), png);
                } catch (IOException e) {
                    throw new UncheckedIOException(e);
                }
                out.add(new Figure(
                        name(reading, taken), caption(results, reading), svg.toByteArray(), png.toByteArray()));
            });
        }
        return out;
    }

    private static String name(Reading reading, Set<String> taken) {
        String stem = "figure-" + Plain.fileName(reading.id());
        String name = stem;
        for (int i = 2; !taken.add(name.toLowerCase(Locale.ROOT)); i++) {
            name = stem + "-" + i;
        }
        return name;
    }

    /** Name, stations, quantities, lanes. */
    private static String caption(Results results, Reading reading) {
        Study study = results.study();
        String at = reading.stations().stream()
                .flatMap(id -> study.station(id).stream())
                .map(s -> s.name())
                .distinct()
                .collect(Collectors.joining(", "));
        String of = reading.quantities().stream()
                .flatMap(id -> study.quantity(id).stream())
                .map(q -> q.name())
                .distinct()
                .collect(Collectors.joining(", "));
        String lanes = study.sources().stream()
                .filter(s -> !(results.outcome(reading.id(), s.id()) instanceof Outcome.Absent))
                .map(Source::name)
                .collect(Collectors.joining(", "));
        return reading.name() + "."
                + (of.isEmpty() ? "" : " " + of)
                + (at.isEmpty() ? "" : (of.isEmpty() ? " At " : " at ") + at)
                + (of.isEmpty() && at.isEmpty() ? "" : ".")
                + " Lanes: " + lanes + ".";
    }
}
