package lane.cli;

import java.awt.Graphics2D;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.function.Consumer;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import lane.base.LaneException;
import lane.base.Plain;
import lane.base.Work;
import lane.check.Check;
import lane.formats.io.AtomicFile;
import lane.formats.ledger.Export.Figure;
import lane.formats.ledger.Export.Shows;
import lane.formats.ledger.LedgerWriter;
import lane.formats.table.CsvWriter;
import lane.ledger.Ledger;
import lane.ledger.LedgerTables;
import lane.picture.Export;
import lane.picture.Palette;
import lane.picture.Ticks;
import lane.picture.chart.TrailPicture;
import lane.picture.field.Camera;
import lane.picture.field.SurfacePicture;
import lane.provenance.Provenance;
import lane.provenance.TrailGraph;
import lane.quantity.Quantity;
import lane.reading.Outcome;
import lane.reading.Reading;
import lane.study.Results;
import lane.study.SavedView;
import lane.study.Source;
import lane.study.Study;
import org.jspecify.annotations.Nullable;

/**
 * The figures of a study on paper: each reading that has a curve or a number, each kept view of each run, and the trail of each
 * reading and check as a graph; with captions made from what they show.
 */
public final class StudyFigures implements LedgerWriter.Drawing {
    private static final int WIDE = 640;
    private static final int TALL = 420;
    /** A number of a few lanes needs less room. */
    private static final int LOW = 240;

    private static final int SHARP = 2;

    @Override
    public List<Figure> figures(Results results, Work work) {
        return new Drawing(results, work).all();
    }

    /** Figures while they are drawn. */
    private static final class Drawing {
        private final Results results;
        private final Study study;
        private final Work work;
        private final Ledger ledger;
        private final List<Figure> out = new ArrayList<>();
        private final Set<String> taken = new HashSet<>();
        private int done;

        Drawing(Results results, Work work) {
            this.results = results;
            this.study = results.study();
            this.work = work;
            this.ledger = Ledger.of(results);
        }

        List<Figure> all() {
            study.readings().forEach(this::reading);
            for (SavedView view : study.views()) {
                study.lanes().forEach(lane -> view(view, lane));
            }
            for (Reading r : study.readings()) {
                trail("reading", r.id(), "Trail of " + r.name() + ".");
            }
            for (Check c : study.checks()) {
                trail(
                        "check",
                        c.id(),
                        "Trail of the check " + c.id() + " on "
                                + study.reading(c.reading()).map(Reading::name).orElse(c.reading()) + ".");
            }
            return out;
        }

        private void reading(Reading reading) {
            step(reading.name());
            Drawn.of(results, reading, Palette.LIGHT).ifPresent(drawn -> {
                int tall = reading.curve() ? TALL : LOW;
                add(
                        Shows.READING,
                        reading.id(),
                        "figure-" + reading.id(),
                        caption(results, reading),
                        tall,
                        g -> drawn.on(g, WIDE, tall),
                        reading.curve() ? LedgerWriter.rows(LedgerTables.curve(results, reading)) : numbers(reading));
            });
        }

        private List<List<String>> numbers(Reading reading) {
            List<List<String>> rows = new ArrayList<>();
            rows.add(List.of("lane", "what", "value", "unit", "uncertainty"));
            for (Ledger.Line l : ledger.lines()) {
                if (l.stop().equals("reading") && l.of().equals(reading.id()) && !Double.isNaN(l.value())) {
                    rows.add(List.of(
                            l.lane(), l.what(), CsvWriter.full(l.value()), l.unit(), CsvWriter.full(l.uncertainty())));
                }
            }
            return rows;
        }

        /** The surface of a run as the view was kept; a run that lacks the quantity has no picture of it. */
        private void view(SavedView view, Source lane) {
            var run = results.runs().get(lane.id());
            if (run == null) {
                return;
            }
            step(view.name());
            Quantity quantity = study.quantity(view.quantity()).orElse(null);
            var camera = new Camera(view.centre(), view.yaw(), view.pitch(), SHARP * TALL / view.height());
            SurfacePicture made;
            try {
                made = SurfacePicture.of(
                        run, quantity, results.lens(), camera, SHARP * WIDE, SHARP * TALL, Palette.LIGHT, true);
            } catch (LaneException e) {
                return;
            }
            List<List<String>> numbers = new ArrayList<>();
            numbers.add(List.of("what", "value", "unit"));
            if (quantity != null) {
                String unit = made.unit().label();
                numbers.add(List.of(
                        "least colour",
                        CsvWriter.full(made.unit().fromSi(made.range().least())),
                        unit));
                numbers.add(List.of(
                        "greatest colour",
                        CsvWriter.full(made.unit().fromSi(made.range().greatest())),
                        unit));
            }
            numbers.add(List.of("centre x", CsvWriter.full(view.centre().x()), "m"));
            numbers.add(List.of("centre y", CsvWriter.full(view.centre().y()), "m"));
            numbers.add(List.of("centre z", CsvWriter.full(view.centre().z()), "m"));
            numbers.add(List.of("turned about z", CsvWriter.full(Math.toDegrees(view.yaw())), "deg"));
            numbers.add(List.of("above the horizon", CsvWriter.full(Math.toDegrees(view.pitch())), "deg"));
            numbers.add(List.of("height of the picture", CsvWriter.full(view.height()), "m"));
            String time = Double.isNaN(run.time()) ? "" : ", time " + run.time();
            add(
                    Shows.VIEW,
                    "",
                    "view-" + view.name() + "-" + lane.id(),
                    "View " + view.name() + ": surface of " + lane.name()
                            + (quantity == null ? "" : ", coloured by " + quantity.name()) + time + ".",
                    TALL,
                    g -> g.drawImage(made.image(), 0, 0, WIDE, TALL, null),
                    numbers);
        }

        private void trail(String stop, String of, String caption) {
            step(caption);
            List<Provenance> trails = ledger.lines().stream()
                    .filter(l -> l.stop().equals(stop)
                            && l.of().equals(of)
                            && !l.trail().steps().isEmpty())
                    .map(Ledger.Line::trail)
                    .distinct()
                    .toList();
            if (trails.isEmpty()) {
                return;
            }
            var picture = new TrailPicture(TrailGraph.of(trails));
            add(
                    Shows.TRAIL,
                    of,
                    "trail-" + stop + "-" + of,
                    caption,
                    picture.width(),
                    picture.height(),
                    1,
                    g -> picture.paint(g, picture.width(), picture.height(), Palette.LIGHT),
                    List.of());
        }

        private void step(String what) {
            work.poll();
            int whole = 2 * study.readings().size()
                    + study.checks().size()
                    + study.views().size() * study.lanes().size();
            work.progress("Drawing " + what, (double) done++ / Math.max(1, whole));
        }

        private void add(
                Shows shows,
                String of,
                String stem,
                String caption,
                int tall,
                Consumer<Graphics2D> paint,
                List<List<String>> numbers) {
            add(shows, of, stem, caption, WIDE, tall, SHARP, paint, numbers);
        }

        private void add(
                Shows shows,
                String of,
                String stem,
                String caption,
                double wide,
                double tall,
                int sharp,
                Consumer<Graphics2D> paint,
                List<List<String>> numbers) {
            int w = (int) Math.ceil(wide);
            int h = (int) Math.ceil(tall);
            out.add(new Figure(
                    shows,
                    of,
                    name(stem),
                    caption,
                    wide,
                    tall,
                    paint,
                    once(to -> Export.svg(w, h, paint, to)),
                    once(to -> Export.png(Export.image(w, h, sharp, paint), to)),
                    numbers));
        }

        /** Bytes that are made when they are wanted first, and kept for the formats that want them, too. */
        private static Supplier<byte[]> once(AtomicFile.Body body) {
            return new Supplier<>() {
                private byte @Nullable [] made;

                @Override
                public synchronized byte[] get() {
                    if (made == null) {
                        var bytes = new ByteArrayOutputStream();
                        try {
                            body.write(bytes);
                        } catch (IOException e) {
                            throw new UncheckedIOException(e);
                        }
                        made = bytes.toByteArray();
                    }
                    return made;
                }
            };
        }

        private String name(String given) {
            String stem = Plain.fileName(given);
            String name = stem;
            for (int i = 2; !taken.add(name.toLowerCase(Locale.ROOT)); i++) {
                name = stem + "-" + i;
            }
            return name;
        }
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
                + time(results)
                + " Lanes: " + lanes + ".";
    }

    /** The stored time that is looked at, where the runs have the same; of others each its own. */
    private static String time(Results results) {
        Map<String, Double> times = new LinkedHashMap<>();
        results.runs().forEach((id, run) -> {
            if (!Double.isNaN(run.time())) {
                times.put(results.study().source(id).map(Source::name).orElse(id), run.time());
            }
        });
        if (times.isEmpty()) {
            return "";
        }
        if (times.values().stream().distinct().count() == 1) {
            return " Time " + Ticks.number(times.values().iterator().next(), 0) + ".";
        }
        return times.entrySet().stream()
                .map(e -> e.getKey() + " " + Ticks.number(e.getValue(), 0))
                .collect(Collectors.joining(", ", " Times: ", "."));
    }
}
