package lane.formats;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import lane.base.LaneException;
import lane.formats.table.PointsTable;
import lane.mesh.Point;
import lane.station.Points;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class PointsTableTest {
    @TempDir
    Path folder;

    private PointsTable.Taken taken(String text) throws IOException {
        return PointsTable.read(Files.writeString(folder.resolve("p.csv"), text));
    }

    private List<Point> read(String text) throws IOException {
        return taken(text).points();
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "x,y,z\n1,2,3\n4,5,6\n",
                "x [m],y [m],z [m]\n1,2,3\n4,5,6\n",
                "x [mm];y [mm];z [mm]\n1000;2000;3000\n4000;5000;6000\n",
                "Z,name,Y,X\n3,a,2,1\n6,b,5,4\n",
                "T,x,y,z\n20,1,2,3\n21,4,5,6\n",
                "# taps of the rig\nx\ty\tz\n1\t2\t3\n4\t5\t6\n",
                "a,b,c\n1,2,3\n4,5,6\n",
                "1 2 3\n4 5 6\n",
                "x;y;z\n1,0;2,0;3,0\n4,0;5,0;6,0\n",
            })
    void coordinatesByNameElseByPlace(String text) throws IOException {
        List<Point> points = read(text);
        assertThat(points).hasSize(2);
        assertThat(points.get(0).minus(new Point(1, 2, 3)).norm()).isCloseTo(0, within(1e-12));
        assertThat(points.get(1).minus(new Point(4, 5, 6)).norm()).isCloseTo(0, within(1e-12));
    }

    @Test
    void eachColumnHasAUnitOfItsOwn() throws IOException {
        Point p = read("x [mm],y [cm],z\n10,10,10\n20,20,20\n").getFirst();
        assertThat(p.minus(new Point(0.01, 0.1, 10)).norm()).isCloseTo(0, within(1e-15));
    }

    @Test
    void whatIsAssumedIsSaid() throws IOException {
        assertThat(taken("x [mm],y [mm],z [mm]\n1,2,3\n4,5,6\n").said()).isEmpty();
        assertThat(taken("east [mm];north [mm];up\n1;2;3\n4;5;6\n").said())
                .containsExactly(
                        "No columns are named x, y and z; the first three of p.csv are taken.",
                        "Column up of p.csv states no unit and is taken as metres.");
    }

    @Test
    void rowsWithoutAllThreeAreLeftOut() throws IOException {
        PointsTable.Taken t = taken("x,y,z\n1,2,3\n,2,3\n4,5,6\n");
        assertThat(t.points()).hasSize(2);
        assertThat(t.said())
                .containsExactly(
                        "Columns x, y, z of p.csv state no unit and are taken as metres.",
                        "1 row of p.csv without three coordinates was left out.");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "'x,y\n1,2\n3,4\n'; columns x, y and z",
                "'x,y,height\n1,2,3\n3,4,5\n'; columns x, y and z",
                "'x [K],y [K],z [K]\n1,2,3\n4,5,6\n'; no length",
            })
    void whatIsNoListOfPointsIsTold(String text, String told) {
        assertThatThrownBy(() -> read(text))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("p.csv")
                .hasMessageContaining(told);
    }

    @Test
    void theOtherColumnsOfNumbersStandBesideThePoints() throws IOException {
        PointsTable.Taken t = taken("tap;x [mm];y [mm];z [mm];arc [mm];cp;gap\n"
                + "A1;1;2;3;10;-0.5;1\nA2;4;5;6;20;-0.7;\nA3;4;;6;30;-0.9;2\nA4;7;8;9;40;-1;3\n");
        assertThat(t.beside())
                .containsExactly(
                        new Points.Beside("arc", "mm", List.of(10.0, 20.0, 40.0)),
                        new Points.Beside("cp", "", List.of(-0.5, -0.7, -1.0)));
        assertThat(t.said()).anySatisfy(s -> assertThat(s).contains("\"gap\" lacks 1 number"));
    }
}
