package lane.desk.intake;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import lane.desk.Chosen;
import lane.desk.Session;
import lane.desk.Windowed;
import lane.field.Field;
import lane.field.Values;
import lane.formats.vtk.VtkXmlWriter;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.reading.Outcome;
import lane.reading.Tally;
import lane.study.Source;
import lane.unit.Unit;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** A pan of brine in two halves, read one after the other, as it is stated in the window. */
class InPiecesTest extends Windowed {
    @TempDir
    Path folder;

    private Path file;

    @BeforeEach
    void pan() throws Exception {
        var sources = new StringBuilder();
        for (int half = 0; half < 2; half++) {
            Mesh box = BoxMesh.of(CellShape.HEXAHEDRON, new int[] {4, 4, 2}, new double[] {2, 3, 0.5}, 0, 1);
            double[] xyz = box.xyz().clone();
            double[] salt = new double[box.nodeCount()];
            for (int i = 0; i < salt.length; i++) {
                xyz[3 * i] += 2 * half;
                salt[i] = 200 + 10 * xyz[3 * i];
            }
            VtkXmlWriter.writeGrid(
                    folder.resolve("pan_" + half + ".vtu"),
                    box.withNodes(xyz),
                    List.of(new Field("salt", Field.At.NODE, 1, Unit.UNKNOWN, Values.of(salt))),
                    VtkXmlWriter.Options.DEFAULT);
            sources.append("<Piece Source=\"pan_" + half + ".vtu\"/>");
        }
        Files.writeString(
                folder.resolve("pan.pvtu"),
                "<VTKFile type=\"PUnstructuredGrid\"><PUnstructuredGrid>" + sources + "</PUnstructuredGrid></VTKFile>");
        file = folder.resolve("pan.lane.json");
        Files.writeString(file, """
                {"version": 3, "name": "Pan", "settings": {"units": [{"field": "salt", "unit": "kg/m3", "stated": true}]},
                 "sources": [{"kind": "run", "id": "pan", "name": "pan", "file": "pan.pvtu"}],
                 "stations": [{"kind": "region", "id": "all", "name": "all", "within": {"kind": "all"}},
                              {"kind": "part", "id": "wall", "name": "wall", "part": "boundary"}],
                 "readings": [{"kind": "tally", "id": "m", "name": "mean", "stations": ["all"],
                               "measure": {"kind": "mean", "quantity": "salt"}},
                              {"kind": "tally", "id": "a", "name": "wetted", "stations": ["wall"],
                               "measure": {"kind": "area"}},
                              {"kind": "jump", "id": "j", "name": "steps", "stations": ["all"], "quantity": "salt"}]}
                """);
    }

    private double number(String reading) {
        return ((Tally) session.results().outcome(reading, "pan")).value();
    }

    @Test
    void howARunIsReadIsStatedAndTheNumbersStay() throws Exception {
        show(() -> Session.open(file));
        settled();
        double mean = number("m");
        assertThat(number("a")).isCloseTo(2 * (4 * 3 + 4 * 0.5 + 3 * 0.5), within(1e-12));
        assertThat(session.results().outcome("j", "pan")).isNotInstanceOf(Outcome.Absent.class);
        robot.interact(() -> {
            session.go(1);
            session.select(Chosen.SOURCE, "pan");
        });
        settled();
        look("pieces-whole");
        choose("read-as", "piece by piece");
        settled();
        assertThat(((Source.Simulation) session.study().sources().getFirst())
                        .treatment()
                        .inPieces())
                .isTrue();
        assertThat(session.results().unread()).isEmpty();
        assertThat(session.results().inPieces()).containsOnlyKeys("pan");
        assertThat(number("m")).isCloseTo(mean, within(1e-9));
        assertThat(number("a")).isCloseTo(31, within(1e-12));
        assertThat(((Outcome.Absent) session.results().outcome("j", "pan")).reason())
                .contains("2 pieces");
        see("It is read in 2 pieces");
        // What stands in its files can be chosen as ever.
        assertThat(session.partNames()).containsExactly("boundary");
        assertThat(session.numbers()).extracting(lane.quantity.Quantity::name).contains("salt");
        see("in pieces");
        look("pieces-sheet");
        robot.interact(() -> {
            session.go(4);
            session.select(Chosen.READING, "m");
        });
        settled();
        look("pieces-reading");
        robot.interact(() -> session.go(2));
        settled();
        look("pieces-stations");
        robot.interact(() -> {
            session.go(1);
            session.select(Chosen.SOURCE, "pan");
        });
        settled();
        choose("read-as", "whole");
        settled();
        assertThat(session.results().failures()).isEmpty();
        assertThat(session.results().outcome("j", "pan")).isNotInstanceOf(Outcome.Absent.class);
        robot.interact(() -> session.undo());
        settled();
        assertThat(session.results().inPieces()).containsOnlyKeys("pan");
    }
}
