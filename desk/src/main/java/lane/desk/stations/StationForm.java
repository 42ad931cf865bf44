package lane.desk.stations;

import java.util.ArrayList;
import java.util.List;
import javafx.scene.Node;
import lane.base.LaneException;
import lane.desk.Session;
import lane.desk.Ui;
import lane.mesh.Axis;
import lane.station.Enclosing;
import lane.station.Frame;
import lane.station.Isosurface;
import lane.station.Station;

/** The numbers of a station by kind, lengths in millimetres and angles in degrees. */
final class StationForm extends StationRows {
    private final Station it;

    private StationForm(Session session, Station it, Axis frame, boolean cylindrical) {
        super(session, it, frame, cylindrical);
        this.it = it;
    }

    static Node of(Session session, Station station) {
        Axis frame = Axis.Z;
        String trouble = "";
        try {
            frame = session.study().placed(station.frame());
        } catch (LaneException e) {
            trouble = e.getMessage();
        }
        boolean round =
                session.study().frameOf(station.id()).map(Frame::cylindrical).orElse(false);
        var form = new StationForm(session, station, frame, round);
        form.frames(trouble);
        form.box.getChildren().addAll(ShapeForm.ALL.of(station.shape()).rows(session, station, frame, round));
        return form.box;
    }

    /** The frame that the numbers are in, where there are frames to choose from. */
    private void frames(String trouble) {
        boolean placed = !(it.shape() instanceof Isosurface || it.shape() instanceof Enclosing);
        List<String> all = new ArrayList<>(List.of(""));
        session.study().frames().forEach(f -> all.add(f.id()));
        if (placed && all.size() > 1) {
            row(
                    "In frame",
                    Ui.choice(
                            "station-frame",
                            all,
                            it.frame(),
                            id -> session.study().frame(id).map(Frame::name).orElse("space"),
                            id -> session.edit("Frame of " + it.name(), s -> s.inFrame(it.id(), id))));
        }
        if (!trouble.isEmpty()) {
            var why = Ui.label(trouble, "small", "brick");
            why.setWrapText(true);
            box.getChildren().add(why);
        }
    }
}
