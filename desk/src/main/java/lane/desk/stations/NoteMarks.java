package lane.desk.stations;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import lane.base.LaneException;
import lane.desk.Session;
import lane.estimate.Estimate;
import lane.field.PartPlaces;
import lane.field.Run;
import lane.mesh.Point;
import lane.picture.Ticks;
import lane.picture.field.Annotations;
import lane.reading.Ask;
import lane.reading.Balance;
import lane.reading.Outcome;
import lane.reading.Reading;
import lane.station.OnPart;
import lane.station.Section;
import lane.station.Shape;
import lane.station.Station;
import lane.study.PictureNote;
import lane.study.Results;

/** Notes in a picture: words with the number of a reading as it is now, and an arrow where that has a direction. */
final class NoteMarks {
    /** Of the size of the run. */
    private static final double LENGTH = 0.18;

    private final Session session;

    NoteMarks(Session session) {
        this.session = session;
    }

    List<Annotations.Label> labels(Run run, String lane) {
        List<Annotations.Label> out = new ArrayList<>();
        for (PictureNote note : session.study().notes()) {
            String text = note.text();
            if (!note.reading().isEmpty()) {
                String name = session.study()
                        .reading(note.reading())
                        .map(Reading::name)
                        .orElse("?");
                text = (text.isBlank() ? name : text) + "  " + number(session.results(), note.reading(), lane);
            }
            out.add(new Annotations.Label(text, place(note, run)));
        }
        return out;
    }

    /** The first number of an answer, with the unit that it is shown in. */
    private static String number(Results results, String reading, String lane) {
        Outcome outcome = results.outcome(reading, lane);
        if (outcome.numbers().isEmpty()) {
            return "no value";
        }
        Estimate first =
                Objects.requireNonNull(results.numbers(reading).get(lane)).getFirst();
        String value = Ticks.number(
                first.shown(), first.unit().differenceFromSi(first.uncertainty().told()));
        return (outcome instanceof Balance ? "residual " : "") + value + " "
                + first.unit().label();
    }

    /** Arrows of the readings that notes tell of, from where these stand. */
    List<Annotations.Line> arrows(Run run, String lane, double size) {
        List<Annotations.Line> out = new ArrayList<>();
        for (PictureNote note : session.study().notes()) {
            session.study().reading(note.reading()).ifPresent(r -> {
                Outcome made = session.results().outcome(r.id(), lane);
                placed(r.ask()).arrow(made).ifPresent(d -> out.add(arrow(place(note, run), d, LENGTH * size)));
            });
        }
        return out;
    }

    /** With its frame in space, where it has one. */
    private Ask placed(Ask ask) {
        try {
            return ask.frame().isBlank() ? ask : ask.placed(session.study().placed(ask.frame()));
        } catch (LaneException e) {
            return ask;
        }
    }

    private static Annotations.Line arrow(Point from, Point along, double length) {
        Point tip = from.plus(along.times(length));
        // Both barbs stand square to the shaft, in a plane that is not along it.
        Point other = Math.abs(along.z()) < 0.9 ? new Point(0, 0, 1) : new Point(1, 0, 0);
        Point aside = along.cross(other).unit().times(0.08 * length);
        Point back = tip.minus(along.times(0.22 * length));
        return new Annotations.Line(
                "",
                List.of(List.of(from, tip), List.of(back.plus(aside), tip, back.minus(aside))),
                List.of(),
                new boolean[0],
                true,
                List.of());
    }

    /** Where it was put, else the middle of what its reading is taken over. */
    private Point place(PictureNote note, Run run) {
        Point at = note.at();
        if (at != null) {
            return at;
        }
        return session.study()
                .reading(note.reading())
                .flatMap(r -> r.ask().stations().stream().findFirst())
                .flatMap(session.study()::station)
                .map(s -> middle(session.placed(s), run))
                .orElseGet(() -> middle(run));
    }

    private static Point middle(Station station, Run run) {
        return switch (station.shape()) {
            case OnPart p ->
                run.parts().stream()
                        .filter(x -> x.name().equals(p.part()))
                        .findFirst()
                        .map(PartPlaces::centre)
                        .orElseGet(() -> middle(run));
            case Shape.Path p -> p.at(0.5);
            case Section s -> s.point();
            default -> middle(run);
        };
    }

    private static Point middle(Run run) {
        double[] b = run.mesh().bounds();
        return new Point((b[0] + b[1]) / 2, (b[2] + b[3]) / 2, (b[4] + b[5]) / 2);
    }
}
