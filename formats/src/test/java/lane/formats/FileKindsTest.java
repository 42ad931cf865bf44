package lane.formats;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import lane.base.LaneException;
import lane.base.Work;
import lane.field.Field;
import lane.field.Values;
import lane.formats.vtk.VtkXmlWriter;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Files of a mushroom house whose endings tell nothing. */
class FileKindsTest {
    @TempDir
    Path folder;

    private Path file(String name, String text) throws IOException {
        return Files.writeString(folder.resolve(name), text);
    }

    @Test
    void rowsOfNumbersMakeATable() throws IOException {
        assertThat(FileKinds.table(
                        file("beds.out", "  iter   damp   heat\n  1  0.5  0.25\n  2  0.4  0.2\n  3  0.3  0.1\n")))
                .isTrue();
        assertThat(FileKinds.table(file("beds", "2026-03-01 12:00;1\n2026-03-01 12:01;2\n2026-03-01 12:02;3\n")))
                .isTrue();
        assertThat(FileKinds.table(file("long.hist", "t p\n" + "1.5 2.5\n".repeat(100_000))))
                .isTrue();
    }

    @Test
    void nothingElseDoes() throws IOException {
        assertThat(FileKinds.table(file("note.md", "# Beds\n\nThe third one is dry since May 3.\n")))
                .isFalse();
        assertThat(FileKinds.table(file("beds.xml", "<a>\n1 2\n3 4\n5 6\n7 8\n</a>\n")))
                .isFalse();
        assertThat(FileKinds.table(file("beds.json", "[1,2,\n3,4,\n5,6]\n"))).isFalse();
        assertThat(FileKinds.table(file("noise.bin", "\u0000\u0001\u0002".repeat(5000))))
                .isFalse();
        assertThat(FileKinds.table(file("empty", ""))).isFalse();
        assertThat(FileKinds.table(folder)).isFalse();
        assertThat(FileKinds.table(folder.resolve("gone.out"))).isFalse();
    }

    /** A run keeps being one, whatever its file is called. */
    @Test
    void aMeshUnderAnotherNameIsStillRead() throws IOException {
        var mesh = BoxMesh.of(CellShape.HEXAHEDRON, new int[] {2, 2, 2}, new double[] {1, 1, 1}, 0, 1);
        var damp = new Field("damp", Field.At.NODE, 1, Unit.ONE, Values.of(new double[mesh.nodeCount()]));
        Path vtu = folder.resolve("beds.vtu");
        VtkXmlWriter.writeGrid(vtu, mesh, java.util.List.of(damp), VtkXmlWriter.Options.DEFAULT);
        Path other = Files.copy(vtu, folder.resolve("beds.xml"));
        assertThat(FileKinds.table(other)).isFalse();
        assertThat(DatasetReader.read(other, Work.QUIET).mesh().cellCount()).isEqualTo(8);

        Path table = file("beds.log", "t,p\n1,2\n2,3\n3,4\n");
        assertThatThrownBy(() -> DatasetReader.read(table, Work.QUIET))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("is a table and no run");
    }
}
