package lane.formats;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import io.jhdf.api.WritableGroup;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import lane.base.LaneException;
import lane.base.Work;
import lane.field.Field;
import lane.field.Run;
import lane.field.TimeSelector;
import lane.field.Treatment;
import lane.formats.grid.Dataset;
import lane.study.Source;
import lane.study.Study;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** One time of many: collections, series of files, times inside a file; and what a library keeps of them. */
class TimesTest {
    @TempDir
    Path folder;

    private static final String GRID = """
            <VTKFile type="UnstructuredGrid" version="1.0" byte_order="LittleEndian"><UnstructuredGrid>%s
            <Piece NumberOfPoints="4" NumberOfCells="1">
            <PointData><DataArray type="Float64" Name="a" format="ascii">%s %s %s %s</DataArray></PointData>
            <Points><DataArray type="Float64" NumberOfComponents="3" format="ascii">0 0 0 1 0 0 0 1 0 0 0 1</DataArray></Points>
            <Cells><DataArray type="Int32" Name="connectivity" format="ascii">0 1 2 3</DataArray>
            <DataArray type="Int32" Name="offsets" format="ascii">4</DataArray>
            <DataArray type="UInt8" Name="types" format="ascii">10</DataArray></Cells></Piece></UnstructuredGrid></VTKFile>
            """;

    private Path grid(String name, double value, Double time) throws IOException {
        String said = time == null
                ? ""
                : "<FieldData><DataArray type=\"Float64\" Name=\"TimeValue\" NumberOfTuples=\"1\" format=\"ascii\">"
                        + time + "</DataArray></FieldData>";
        return Files.writeString(folder.resolve(name), String.format(GRID, said, value, value, value, value));
    }

    private static double value(Dataset d) {
        return d.fields().getFirst().values().get(0);
    }

    private static Dataset at(Path file, double time, double tolerance) {
        return Both.read(file, new TimeSelector.At(time, tolerance), Work.QUIET);
    }

    @Test
    void aSeriesTakesItsTimesFromTheFilesElseFromTheirNames() throws IOException {
        // Steps 2 and 10 sort by number, not by letter; their times run the other way.
        grid("step_2.vtu", 2, 0.75);
        grid("step_10.vtu", 10, 0.25);
        Path steps = folder.resolve("step_*.vtu");
        assertThat(Both.read(steps, Work.QUIET).times()).containsExactly(0.25, 0.75);
        assertThat(value(Both.read(steps, Work.QUIET))).isEqualTo(2);
        assertThat(value(Both.read(steps, new TimeSelector.First(), Work.QUIET)))
                .isEqualTo(10);
        assertThat(value(at(steps, 0.25, 0))).isEqualTo(10);
        // A third file that does not say its time: then the numbers in the names count for all.
        grid("step_7.vtu", 7, null);
        Dataset named = at(steps, 7, 0);
        assertThat(named.times()).containsExactly(2., 7., 10.);
        assertThat(value(named)).isEqualTo(7);
        assertThat(named.remarks()).anyMatch(r -> r.contains("numbers in their names"));
        assertThat(Series.around(folder.resolve("step_7.vtu"))).contains("step_*.vtu");
        grid("lonely3.vtu", 1, null);
        assertThat(Series.around(folder.resolve("lonely3.vtu"))).isEmpty();
    }

    @Test
    void onlyTheFileOfTheWantedTimeIsRead() throws IOException {
        grid("s1.vtu", 1, 1.0);
        Files.writeString(folder.resolve("s2.vtu"), "<VTKFile type=\"UnstructuredGrid\"><Unstr");
        assertThat(value(at(folder.resolve("s*.vtu"), 1, 0))).isEqualTo(1);
        assertThatThrownBy(() -> at(folder.resolve("s*.vtu"), 2, 0))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("s2.vtu");
        assertThatThrownBy(() -> Both.read(folder.resolve("none*.vtu"), Work.QUIET))
                .hasMessageContaining("fits 0 files");
    }

    @Test
    void aTimeThatIsNotStoredIsRefusedWithTheNearestOne() throws IOException {
        grid("s1.vtu", 1, 0.1);
        grid("s2.vtu", 2, 0.2);
        Path steps = folder.resolve("s*.vtu");
        assertThat(value(at(steps, 0.19, 0.02))).isEqualTo(2);
        assertThatThrownBy(() -> at(steps, 0.15, 0.01))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("no time 0.15 within 0.01")
                .hasMessageContaining("0.1");
        // A single file has one time and no other.
        assertThat(value(at(folder.resolve("s1.vtu"), 0.1, 0))).isEqualTo(1);
        assertThatThrownBy(() -> at(folder.resolve("s1.vtu"), 0.2, 0)).hasMessageContaining("s1.vtu");
        // Written down with fewer digits it is still the same time.
        assertThat(new TimeSelector.At(1 / 3.0, 0).in(List.of(0.333333333333, 0.5)))
                .isZero();
    }

    @Test
    void collectionsAndXdmfGiveTheTimeThatIsAsked() throws IOException {
        grid("early.vtu", 1, null);
        grid("late.vtu", 2, null);
        Path pvd = Files.writeString(
                folder.resolve("all.pvd"),
                "<VTKFile type=\"Collection\"><Collection><DataSet timestep=\"5\" file=\"late.vtu\"/>"
                        + "<DataSet timestep=\"1\" file=\"early.vtu\"/></Collection></VTKFile>");
        assertThat(value(at(pvd, 1, 0))).isEqualTo(1);
        assertThat(value(Both.read(pvd, Work.QUIET))).isEqualTo(2);
        var grids = new StringBuilder();
        for (int t = 0; t < 3; t++) {
            grids.append(String.format(
                    "<Grid><Time Value=\"0.%d\"/><Topology TopologyType=\"Tetrahedron\" NumberOfElements=\"1\"><DataItem "
                            + "DataType=\"Int\" Dimensions=\"4\">0 1 2 3</DataItem></Topology><Geometry GeometryType=\"XYZ\">"
                            + "<DataItem Dimensions=\"4 3\">0 0 0 1 0 0 0 1 0 0 0 1</DataItem></Geometry><Attribute Name=\"T\" "
                            + "Center=\"Node\"><DataItem Dimensions=\"4\">%d 0 0 0</DataItem></Attribute></Grid>",
                    t, 40 + t));
        }
        Path xdmf = Files.writeString(
                folder.resolve("a.xdmf"),
                "<Xdmf><Domain><Grid GridType=\"Collection\" CollectionType=\"Temporal\">" + grids
                        + "</Grid></Domain></Xdmf>");
        Dataset second = at(xdmf, 0.1, 0);
        assertThat(value(second)).isEqualTo(41);
        assertThat(second.times()).containsExactly(0.0, 0.1, 0.2);
        assertThat(second.time()).isEqualTo(0.1);
    }

    /** An index in JSON, as it is written beside files that have no place for their time. */
    @Test
    void anIndexOfFilesGivesTheTimeThatIsAsked() throws IOException {
        grid("early.vtu", 1, null);
        grid("late.vtu", 2, null);
        Path index = Files.writeString(folder.resolve("pot.vtu.series"), """
                {"file-series-version": "1.0", "files": [
                  {"name": "late.vtu", "time": 7.5}, {"name": "early.vtu", "time": 1}]}
                """);
        assertThat(value(at(index, 1, 0))).isEqualTo(1);
        Dataset last = Both.read(index, Work.QUIET);
        assertThat(value(last)).isEqualTo(2);
        assertThat(last.times()).containsExactly(1.0, 7.5);
        assertThat(DatasetReader.named(index))
                .containsExactlyInAnyOrder(folder.resolve("early.vtu"), folder.resolve("late.vtu"));
        assertThatThrownBy(() -> at(index, 3, 0))
                .hasMessageContaining("no time 3")
                .hasMessageContaining("1");
        record Wrong(String text, String told) {}
        for (Wrong w : List.of(
                new Wrong("{\"files\": [", "JSON is damaged in line 1"),
                new Wrong("{\"files\": []}", "names no file"),
                new Wrong("[1, 2]", "names no file"),
                new Wrong("{\"files\": [{\"name\": \"early.vtu\"}]}", "number 1 has no name or no time"),
                new Wrong("{\"files\": [{\"name\": \"../x.vtu\", \"time\": 1}]}", "outside its folder"),
                new Wrong("{\"files\": [{\"name\": \"bad.vtu.series\", \"time\": 1}]}", "five deep"),
                new Wrong("{\"files\": [{\"name\": \"gone.vtu\", \"time\": 1}]}", "gone.vtu"))) {
            Path bad = Files.writeString(folder.resolve("bad.vtu.series"), w.text);
            assertThatThrownBy(() -> Both.read(bad, Work.QUIET))
                    .as(w.text)
                    .isInstanceOf(LaneException.class)
                    .hasMessageContaining(w.told)
                    .hasMessageContaining("bad.vtu.series");
        }
    }

    private static WritableGroup node(WritableGroup parent, String name, String label, Object data) {
        WritableGroup g = parent.putGroup(name);
        g.putAttribute("label", label);
        if (data != null) {
            g.putDataset(
                    " data",
                    data instanceof String s ? s.getBytes(java.nio.charset.StandardCharsets.ISO_8859_1) : data);
        }
        return g;
    }

    @Test
    void cgnsSolutionsOverTimeWithRind() throws IOException {
        Path file = folder.resolve("t.cgns");
        // Two by one by one cells with one layer of a neighbour's cells below and above in i.
        try (var hdf = io.jhdf.HdfFile.write(file)) {
            var base = node(hdf, "Base", "CGNSBase_t", new int[] {3, 3});
            var iterative = node(base, "BaseIterativeData", "BaseIterativeData_t", new int[] {2});
            node(iterative, "TimeValues", "DataArray_t", new double[] {0.5, 1.5});
            var zone = node(base, "blk", "Zone_t", new int[] {3, 2, 2, 2, 1, 1, 0, 0, 0});
            node(zone, "ZoneType", "ZoneType_t", "Structured");
            var grid = node(zone, "GridCoordinates", "GridCoordinates_t", null);
            double[][] xyz = new double[3][12];
            for (int n = 0; n < 12; n++) {
                xyz[0][n] = n % 3;
                xyz[1][n] = n / 3 % 2;
                xyz[2][n] = n / 6;
            }
            for (int d = 0; d < 3; d++) {
                node(grid, "Coordinate" + "XYZ".charAt(d), "DataArray_t", xyz[d]);
            }
            for (int t = 0; t < 2; t++) {
                var solution = node(zone, "sol" + t, "FlowSolution_t", null);
                node(solution, "GridLocation", "GridLocation_t", "CellCenter");
                node(solution, "Rind", "Rind_t", new int[] {1, 1, 0, 0, 0, 0});
                node(solution, "Pressure", "DataArray_t", new double[] {-1, 10 * t + 1, 10 * t + 2, -1});
            }
            var over = node(zone, "ZoneIterativeData", "ZoneIterativeData_t", null);
            node(over, "FlowSolutionPointers", "DataArray_t", String.format("%-32s%-32s", "sol0", "sol1"));
        }
        Dataset last = Both.read(file, Work.QUIET);
        assertThat(last.times()).containsExactly(0.5, 1.5);
        assertThat(last.fields()).hasSize(1);
        assertThat(last.fields().getFirst().values().get(0)).isEqualTo(11);
        assertThat(last.fields().getFirst().values().get(1)).isEqualTo(12);
        Dataset first = at(file, 0.5, 0);
        assertThat(first.fields().getFirst().values().get(1)).isEqualTo(2);
    }

    private static Study study(Source... sources) {
        return Study.empty("s").withSources(l -> {
            l.addAll(List.of(sources));
            return l;
        });
    }

    @Test
    void theLibraryKeepsTimesApartAndSharesTheirMesh() throws IOException {
        grid("s1.vtu", 1, 0.1);
        grid("s2.vtu", 2, 0.2);
        var library = new FileLibrary(folder);
        var source = new Source.Simulation("r", "r", "s*.vtu", List.of(), "", "f");
        Run late = library.run(source, TimeSelector.LAST, Work.QUIET);
        Run early = library.run(source, new TimeSelector.First(), Work.QUIET);
        assertThat(early.mesh()).isSameAs(late.mesh());
        assertThat(early.locator()).isSameAs(late.locator());
        assertThat(early.time()).isEqualTo(0.1);
        assertThat(early.field("a").orElseThrow().values().get(0)).isEqualTo(1);
        assertThat(late.inputs()).extracting(i -> i.path()).containsExactly("s2.vtu");
        // Three ways to say the same time give the same run.
        assertThat(library.run(source, new TimeSelector.At(0.2, 0.01), Work.QUIET))
                .isSameAs(late);
        // A source of its own moment, next to one that follows the study.
        Study s = study(
                source,
                new Source.Simulation(
                        "r2", "r2", "s*.vtu", List.of(), "", "f", Treatment.NONE.at(new TimeSelector.First())));
        assertThat(s.timeOf((Source.Simulation) s.sources().get(1))).isEqualTo(new TimeSelector.First());
        assertThat(s.withTime(new TimeSelector.At(0.2, 0)).timeOf(source)).isEqualTo(new TimeSelector.At(0.2, 0));
        // The file of a time that is in memory changes.
        assertThat(library.changed(s)).isEmpty();
        grid("s1.vtu", 100, 0.1);
        Files.setLastModifiedTime(folder.resolve("s1.vtu"), java.nio.file.attribute.FileTime.fromMillis(1_000_000));
        assertThat(library.changed(s)).contains("r");
        library.reload(s, java.util.Set.of("r"));
        assertThat(library.run(source, new TimeSelector.First(), Work.QUIET)
                        .field("a")
                        .orElseThrow()
                        .values()
                        .get(0))
                .isEqualTo(100);
    }

    @Test
    void surfaceFilesOverTimeGoWithTheVolumesTime() throws IOException {
        grid("v1.vtu", 1, 0.1);
        grid("v2.vtu", 2, 0.2);
        String wall = """
                <VTKFile type="PolyData" version="1.0" byte_order="LittleEndian"><PolyData>
                <FieldData><DataArray type="Float64" Name="TimeValue" NumberOfTuples="1" format="ascii">%s</DataArray></FieldData>
                <Piece NumberOfPoints="3" NumberOfVerts="0" NumberOfLines="0" NumberOfStrips="0" NumberOfPolys="1">
                <CellData><DataArray type="Float64" Name="w" format="ascii">%s</DataArray></CellData>
                <Points><DataArray type="Float64" NumberOfComponents="3" format="ascii">0 0 0 1 0 0 0 1 0</DataArray></Points>
                <Polys><DataArray type="Int32" Name="connectivity" format="ascii">0 1 2</DataArray>
                <DataArray type="Int32" Name="offsets" format="ascii">3</DataArray></Polys></Piece></PolyData></VTKFile>
                """;
        Files.writeString(folder.resolve("wall_1.vtp"), String.format(wall, 0.1, 11));
        Files.writeString(folder.resolve("wall_2.vtp"), String.format(wall, 0.2, 22));
        var library = new FileLibrary(folder);
        var source = new Source.Simulation("r", "r", "v*.vtu", List.of("wall_*.vtp"), "", "f");
        for (int i = 1; i <= 2; i++) {
            Run run = library.run(source, new TimeSelector.At(0.1 * i, 1e-9), Work.QUIET);
            assertThat(run.field("a").orElseThrow().values().get(0)).isEqualTo(i);
            assertThat(run.parts()).hasSize(1);
            assertThat(run.parts().getFirst().unmatched()).isZero();
            assertThat(run.parts().getFirst().field("w").orElseThrow().values().get(0))
                    .isEqualTo(11.0 * i);
            assertThat(run.inputs())
                    .extracting(in -> in.path())
                    .containsExactly("v" + i + ".vtu", "wall_" + i + ".vtp");
        }
        // A wall that was not written at the volume's time is refused, not taken from another time.
        Files.delete(folder.resolve("wall_1.vtp"));
        assertThatThrownBy(() -> new FileLibrary(folder).run(source, new TimeSelector.First(), Work.QUIET))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("wall_");
    }

    @Test
    void oneFileInTwoUnitsOfLengthStaysTwoRuns() throws IOException {
        grid("a.vtu", 1, null);
        var library = new FileLibrary(folder);
        var metre = new Source.Simulation("m", "m", "a.vtu", List.of(), "", "f");
        var milli = new Source.Simulation("mm", "mm", "a.vtu", List.of(), "", "f", Treatment.NONE.inLength("mm"));
        Study s = study(metre, milli);
        Run one = library.run(metre, TimeSelector.LAST, Work.QUIET);
        Run two = library.run(milli, TimeSelector.LAST, Work.QUIET);
        assertThat(one.mesh().bounds()[1]).isEqualTo(1);
        assertThat(two.mesh().bounds()[1]).isCloseTo(1e-3, within(1e-18));
        library.settled(s);
        assertThat(library.run(metre, TimeSelector.LAST, Work.QUIET)).isSameAs(one);
        assertThat(library.run(milli, TimeSelector.LAST, Work.QUIET)).isSameAs(two);
        library.settled(study(metre));
        assertThat(library.run(milli, TimeSelector.LAST, Work.QUIET)).isNotSameAs(two);
    }

    @Test
    void componentsAreOrderedByTheirNamesAndRegionsAreNamedByTheFile() throws IOException {
        String text = String.format(GRID, "", 0, 0, 0, 0)
                .replace(
                        "<PointData>",
                        "<PointData><DataArray type=\"Float64\" Name=\"u\" NumberOfComponents=\"3\" ComponentName0=\"uz\" "
                                + "ComponentName1=\"ux\" ComponentName2=\"uy\" format=\"ascii\">3 1 2 3 1 2 3 1 2 3 1 2</DataArray>")
                .replace(
                        "<Cells>",
                        "<CellData><DataArray type=\"Int32\" Name=\"region\" format=\"ascii\">2</DataArray></CellData><Cells>")
                .replace(
                        "<UnstructuredGrid>",
                        "<UnstructuredGrid><FieldData><DataArray type=\"String\" Name=\"region names\" NumberOfTuples=\"2\" "
                                + "format=\"ascii\">103 97 112 0 100 114 117 109 0</DataArray></FieldData>");
        Files.writeString(folder.resolve("n.vtu"), text);
        var library = new FileLibrary(folder);
        var source = new Source.Simulation("r", "r", "n.vtu", List.of(), "region", "f");
        Run run = library.run(source, TimeSelector.LAST, Work.QUIET);
        Field u = run.field("u").orElseThrow();
        assertThat(new double[] {
                    u.values().get(0), u.values().get(1), u.values().get(2)
                })
                .containsExactly(1, 2, 3);
        assertThat(run.remarks()).anyMatch(r -> r.contains("\"u\""));
        // Numbers count from 1: the second name is that of region 2.
        assertThat(run.parts()).extracting(p -> p.name()).containsExactly("drum");
        // What the file says can be corrected.
        Run turned = library.run(
                source.with(new Treatment(
                        null, "", null, Map.of(), Map.of("u", List.of(2, 0, 1)), Map.of(), 1.0, null, List.of())),
                TimeSelector.LAST,
                Work.QUIET);
        assertThat(turned.field("u").orElseThrow().values().get(0)).isEqualTo(3);
    }
}
