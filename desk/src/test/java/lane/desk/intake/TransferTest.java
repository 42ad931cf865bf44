package lane.desk.intake;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import lane.desk.Chosen;
import lane.desk.Session;
import lane.desk.Windowed;
import lane.field.Field;
import lane.field.Run;
import lane.field.Treatment;
import lane.field.Values;
import lane.formats.vtk.VtkXmlWriter;
import lane.formats.vtk.VtkXmlWriter.Options;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.study.Source;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The load of a kiln car, 1.2 x 0.8 x 0.6 m in millimetres: the heat of one mesh is brought onto a finer one of other cells. */
class TransferTest extends Windowed {
    private static final Mesh BRICKS =
            BoxMesh.of(CellShape.HEXAHEDRON, new int[] {6, 5, 4}, new double[] {1200, 800, 600}, 0.1, 3);
    private static final Mesh STACK =
            BoxMesh.of(CellShape.TETRAHEDRON, new int[] {5, 4, 3}, new double[] {1200, 800, 600}, 0.1, 11);

    @TempDir
    Path folder;

    private static double warm(double[] xyz, int i) {
        return 240 + 0.5 * xyz[3 * i] - 0.2 * xyz[3 * i + 1] + 0.1 * xyz[3 * i + 2];
    }

    private static Field heat(Mesh mesh) {
        double[] t = new double[mesh.nodeCount()];
        for (int i = 0; i < t.length; i++) {
            t[i] = warm(mesh.xyz(), i);
        }
        return new Field("T_Ofen", Field.At.NODE, 1, Unit.UNKNOWN, Values.of(t));
    }

    /** The upper face of the finer mesh. */
    private static Mesh lid() {
        Mesh all = new lane.field.PartBuilder(STACK).whole("all").surface();
        List<Integer> corners = new ArrayList<>();
        int[] nodes = all.nodes();
        for (int c = 0; c < all.cellCount(); c++) {
            boolean up = true;
            for (int k = 0; k < 3; k++) {
                up &= all.xyz()[3 * nodes[3 * c + k] + 2] > 599.999;
            }
            for (int k = 0; up && k < 3; k++) {
                corners.add(nodes[3 * c + k]);
            }
        }
        return Mesh.uniform(
                all.xyz(), CellShape.TRIANGLE, corners.stream().mapToInt(i -> i).toArray());
    }

    private void files() throws Exception {
        double[] setting = new double[BRICKS.cellCount()];
        java.util.Arrays.setAll(setting, i -> 1 + i % 3);
        VtkXmlWriter.writeGrid(
                folder.resolve("besatz.vtu"),
                BRICKS,
                List.of(heat(BRICKS), new Field("Lage", Field.At.CELL, 1, Unit.UNKNOWN, Values.of(setting))),
                Options.DEFAULT);
        VtkXmlWriter.writeGrid(folder.resolve("fein.vtu"), STACK, List.of(), Options.DEFAULT);
        Files.createDirectory(folder.resolve("fein-parts"));
        VtkXmlWriter.writeSurface(folder.resolve("fein-parts/decke.vtp"), lid(), List.of(), Options.DEFAULT);
    }

    private Source.Simulation source(String file) {
        return session.study().sources().stream()
                .map(Source.Simulation.class::cast)
                .filter(s -> s.file().endsWith(file))
                .findFirst()
                .orElseThrow();
    }

    private Run run(String file) {
        return session.results().runs().get(source(file).id());
    }

    @Test
    void fieldsOfARunComeOntoTheMeshOfAnother() throws Exception {
        files();
        show(Session::fresh);
        robot.interact(() -> FileDrop.add(session, List.of(folder.resolve("besatz.vtu"))));
        await(() -> session.results().runs().size() == 1);
        settled();
        robot.interact(() -> session.go(1));
        settled();
        // There is nowhere to transfer to yet, and the button says so.
        Button transfer = node("transfer");
        assertThat(transfer.isDisabled()).isTrue();
        assertThat(transfer.getParent().getAccessibleHelp()).contains("another run");
        robot.interact(() -> FileDrop.add(session, List.of(folder.resolve("fein.vtu"))));
        await(() -> session.results().runs().size() == 2);
        robot.interact(() -> session.edit(
                "Millimetres",
                s -> s.withSources(l -> l.stream()
                        .map(x -> (Source) ((Source.Simulation) x).with(Treatment.NONE.inLength("mm")))
                        .toList())));
        settled();
        robot.interact(() -> session.select(Chosen.SOURCE, source("besatz.vtu").id()));
        settled();
        Button there = node("transfer");
        assertThat(there.isDisabled()).isFalse();
        var form = onFx(() -> {
            var made = new TransferForm(session, source("besatz.vtu"));
            made.show(there);
            return made;
        });
        CheckBox lid = node("transfer-on-decke");
        robot.interact(lid::fire);
        enter("transfer-imposed", "90");
        popup("transfer");
        onFx(() -> {
            form.into(folder.resolve("auf fein.vtu"));
            return null;
        });
        await(() -> session.results().runs().size() == 3);
        settled();
        Label told = node("transfer-told");
        assertThat(told.getText()).contains("largest change", "all with values", "common volume");
        popup("transfer-done");

        Run made = run("auf fein.vtu");
        double[] b = made.mesh().bounds();
        assertThat(b[1] - b[0]).isCloseTo(1.2, within(1e-12));
        Field t = made.field("T_Ofen").orElseThrow();
        int onLid = 0;
        for (int i = 0; i < made.mesh().nodeCount(); i++) {
            boolean up = made.mesh().xyz()[3 * i + 2] > 0.6 - 1e-9;
            onLid += up ? 1 : 0;
            assertThat(t.values().get(i)).isCloseTo(up ? 90 : warm(STACK.xyz(), i), within(1e-8));
        }
        assertThat(onLid).isEqualTo(30);
        // The parts of the target are its parts, in place, and the fields of the cells came along.
        assertThat(made.parts())
                .anyMatch(p -> p.name().equals("decke") && p.surface().cellCount() == 40);
        assertThat(made.field("Lage").orElseThrow().at()).isEqualTo(Field.At.CELL);
        // It is no mesh of the family that a refinement is made of.
        assertThat(source("auf fein.vtu").family())
                .isNotEqualTo(source("besatz.vtu").family());
        look("transferred");
    }
}
