package lane.formats;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Set;
import lane.base.LaneException;
import lane.base.Work;
import lane.field.Field;
import lane.field.Part;
import lane.field.Run;
import lane.field.Shelf;
import lane.field.TimeSelector;
import lane.field.Values;
import lane.formats.hdf.XdmfWriter;
import lane.formats.vtk.VtkXmlWriter;
import lane.measure.Integral;
import lane.measure.Mean;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.quantity.Quantity;
import lane.reading.Outcome;
import lane.reading.Reading;
import lane.reading.Tally;
import lane.reading.TallyOf;
import lane.station.OnPart;
import lane.station.Region;
import lane.station.Station;
import lane.station.Within;
import lane.study.Evaluator;
import lane.study.Results;
import lane.study.Source;
import lane.study.Study;
import lane.unit.Unit;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.api.parallel.Isolated;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** A drying kiln over time: what its times share, what is read of each, what is kept, and what is noticed. */
@Isolated("counts what the whole program reads")
class RecordingTest {
    @TempDir
    Path folder;

    private static final Mesh KILN =
            BoxMesh.of(CellShape.HEXAHEDRON, new int[] {6, 4, 3}, new double[] {3, 2, 1}, 0.1, 7);
    private static final long LIMIT = Shelf.limit();

    @AfterEach
    void limit() {
        Shelf.limit(LIMIT);
    }

    /** Moisture that falls by one a time, and air that rests: {@code w = 100 + 2 x - t}, {@code T = 300 + t}. */
    private static List<Field> fields(Mesh mesh, double t) {
        int n = mesh.nodeCount();
        double[] w = new double[n];
        float[] heat = new float[n];
        for (int i = 0; i < n; i++) {
            w[i] = 100 + 2 * mesh.xyz()[3 * i] - t;
            heat[i] = (float) (300 + t);
        }
        return List.of(
                new Field("moisture", Field.At.NODE, 1, Unit.of("kg/m3"), Values.of(w)),
                new Field("T", Field.At.NODE, 1, Unit.of("K"), new Values.Floats(heat)));
    }

    private Path write(String name, Mesh mesh, double t, VtkXmlWriter.Options options) throws IOException {
        Path file = folder.resolve(name);
        VtkXmlWriter.writeGrid(file, mesh, fields(mesh, t), options);
        return file;
    }

    private void series(int count) throws IOException {
        for (int t = 0; t < count; t++) {
            write(String.format("kiln_%03d.vtu", t), KILN, t, VtkXmlWriter.Options.DEFAULT);
        }
    }

    private static final Source.Simulation SOURCE =
            new Source.Simulation("k", "kiln", "kiln_*.vtu", List.of(), "", "f");

    private static Run at(FileLibrary library, double t) {
        return library.run(SOURCE, new TimeSelector.At(t, 0), Work.QUIET);
    }

    private static double sum(Run run, String field) {
        Values v = run.field(field).orElseThrow().values();
        double sum = 0;
        for (int i = 0; i < v.length(); i++) {
            sum += v.get(i);
        }
        return sum / v.length();
    }

    @Test
    void aMeshOfTwoHundredTimesIsLocatedBoundedAndPlacedOnceAndMemoryStaysWithinItsLimit() throws IOException {
        series(200);
        long limit = 20L * 8 * KILN.nodeCount();
        Shelf.limit(limit);
        var library = new FileLibrary(folder);
        Run first = at(library, 0);
        assertThat(first.times()).hasSize(200);
        long before = Shelf.reads();
        for (int t = 0; t < 200; t++) {
            Run run = at(library, t);
            assertThat(run.mesh()).as("mesh at %d", t).isSameAs(first.mesh());
            assertThat(run.locator()).as("locator at %d", t).isSameAs(first.locator());
            assertThat(run.parts().getFirst().surface())
                    .isSameAs(first.parts().getFirst().surface());
            assertThat(sum(run, "T")).isEqualTo(300 + t);
            assertThat(Shelf.bytes()).as("held at %d", t).isLessThanOrEqualTo(limit);
        }
        assertThat(Shelf.reads() - before)
                .as("one array a time, and no moisture")
                .isEqualTo(200);
        // What was let go of is read again, and is the same.
        assertThat(sum(first, "T")).isEqualTo(300);
        assertThat(Shelf.reads() - before).isEqualTo(201);
        assertThat(sum(first, "T")).isEqualTo(300);
        assertThat(Shelf.reads() - before).as("still there").isEqualTo(201);
    }

    @Test
    void timesThatArePassedByLeaveTheShelfAtOnce() throws IOException {
        series(40);
        var library = new FileLibrary(folder);
        Run kept = at(library, 39);
        assertThat(sum(kept, "T")).isEqualTo(339);
        long before = Shelf.bytes();
        Run first = library.passing(SOURCE, new TimeSelector.At(0, 0), Work.QUIET);
        for (int t = 0; t < 39; t++) {
            assertThat(sum(library.passing(SOURCE, new TimeSelector.At(t, 0), Work.QUIET), "T"))
                    .isEqualTo(300 + t);
        }
        assertThat(Shelf.bytes() - before).isLessThanOrEqualTo(10 * 4L * KILN.nodeCount());
        // What is looked at stays; who still holds one that was passed by reads it again.
        long reads = Shelf.reads();
        assertThat(sum(kept, "T")).isEqualTo(339);
        assertThat(Shelf.reads()).isEqualTo(reads);
        assertThat(sum(first, "T")).isEqualTo(300);
        assertThat(Shelf.reads()).isEqualTo(reads + 1);
    }

    /** Not for each of its times, but as soon as there is another file, or the one that is wanted is another. */
    @Test
    void aSeriesIsLookedForAgainWhereItsFolderChanged() throws IOException {
        series(5);
        FileTime longAgo = FileTime.fromMillis(System.currentTimeMillis() - 60_000);
        Files.setLastModifiedTime(folder, longAgo);
        var library = new FileLibrary(folder);
        assertThat(at(library, 1).times()).hasSize(5);
        assertThat(at(library, 2).times()).hasSize(5);
        write("kiln_005.vtu", KILN, 5, VtkXmlWriter.Options.DEFAULT);
        assertThat(at(library, 3).times()).hasSize(6);
        assertThat(library.changed(Study.empty("s").withSources(l -> List.of(SOURCE))))
                .containsExactly("k");
        Files.setLastModifiedTime(folder, longAgo);
        write("kiln_000.vtu", KILN, 17, VtkXmlWriter.Options.DEFAULT);
        assertThat(sum(at(library, 0), "T")).isEqualTo(317);
        Files.delete(folder.resolve("kiln_004.vtu"));
        library.reload(Study.empty("s").withSources(l -> List.of(SOURCE)), java.util.Set.of("k"));
        assertThat(at(library, 3).times()).containsExactly(0., 1., 2., 3., 5.);
    }

    /** Before it is opened, a file can be looked at by whoever proves it. */
    @Test
    void filesOfTimesAreKnownBeforeTheyAreOpened() throws IOException {
        series(4);
        var library = new FileLibrary(folder);
        var series = new Recording(library, new Recording.Bundle(List.of(folder.resolve("kiln_*.vtu")), "", 1, null));
        series.run(SOURCE, TimeSelector.LAST, Work.QUIET);
        assertThat(series.files(new double[] {2, 0, 7}))
                .containsExactly(folder.resolve("kiln_002.vtu"), folder.resolve("kiln_000.vtu"));
        Path named = Files.writeString(
                folder.resolve("days.pvd"),
                "<VTKFile type=\"Collection\"><Collection><DataSet timestep=\"20\" file=\"kiln_003.vtu\"/>"
                        + "<DataSet timestep=\"10\" part=\"0\" file=\"kiln_001.vtu\"/>"
                        + "<DataSet timestep=\"10\" part=\"1\" file=\"kiln_002.vtu\"/></Collection></VTKFile>");
        var collection = new Recording(library, new Recording.Bundle(List.of(named), "", 1, null));
        assertThat(collection.files(new double[] {10, 20, 15}))
                .containsExactly(
                        folder.resolve("kiln_001.vtu"), folder.resolve("kiln_002.vtu"), folder.resolve("kiln_003.vtu"));
        // One that holds all of its times is proved as it is opened.
        Path alone = folder.resolve("kiln_000.vtu");
        assertThat(new Recording(library, new Recording.Bundle(List.of(alone), "", 1, null)).files(new double[] {0}))
                .isEmpty();
    }

    @ParameterizedTest
    @EnumSource(VtkXmlWriter.Encoding.class)
    void anotherTimeReadsTheFieldThatIsAskedAndNothingElse(VtkXmlWriter.Encoding encoding) throws IOException {
        boolean packed = encoding != VtkXmlWriter.Encoding.ASCII;
        var options = new VtkXmlWriter.Options(encoding, packed, ByteOrder.BIG_ENDIAN, false);
        for (int t = 0; t < 3; t++) {
            write("kiln_" + t + ".vtu", KILN, t, options);
        }
        var library = new FileLibrary(folder);
        Run zero = at(library, 0);
        Run two = at(library, 2);
        long before = Shelf.reads();
        assertThat(sum(two, "moisture")).isCloseTo(sum(zero, "moisture") - 2, within(1e-9));
        assertThat(Shelf.reads() - before).isEqualTo(2);
        assertThat(two.mesh()).isSameAs(zero.mesh());
    }

    @Test
    void anXdmfMeshThatAllTimesReferToIsReadOnce() throws IOException {
        XdmfWriter.write(folder.resolve("one.xdmf"), KILN, fields(KILN, 4));
        String one = Files.readString(folder.resolve("one.xdmf"));
        String grid = one.substring(one.indexOf("<Grid"), one.indexOf("</Grid>") + 7);
        var all = new StringBuilder("<Grid Name=\"t\" GridType=\"Collection\" CollectionType=\"Temporal\">");
        for (int t = 0; t < 5; t++) {
            all.append(grid.replaceFirst(">", "><Time Value=\"" + t + "\"/>"));
        }
        Files.writeString(folder.resolve("all.xdmf"), one.replace(grid, all.append("</Grid>")));
        var library = new FileLibrary(folder);
        var source = new Source.Simulation("x", "x", "all.xdmf", List.of(), "", "f");
        Run first = library.run(source, new TimeSelector.First(), Work.QUIET);
        Run last = library.run(source, TimeSelector.LAST, Work.QUIET);
        assertThat(last.times()).containsExactly(0., 1., 2., 3., 4.);
        assertThat(last.mesh()).isSameAs(first.mesh());
        assertThat(last.inputs()).extracting(i -> i.path()).hasSize(2).first().isEqualTo("all.xdmf");
        assertThat(last.inputs().getLast().path()).matches("one-[0-9a-f]{8}\\.h5");
        assertThat(sum(last, "T")).isEqualTo(304);
    }

    @Test
    void aMeshThatMovesIsAnotherAtEachTime() throws IOException {
        for (int t = 0; t < 3; t++) {
            write("kiln_" + t + ".vtu", KILN.scaled(1 + t), t, VtkXmlWriter.Options.DEFAULT);
        }
        var library = new FileLibrary(folder);
        for (int t = 0; t < 3; t++) {
            assertThat(at(library, t).mesh().bounds()[1]).isCloseTo(3 * (1 + t), within(1e-12));
        }
    }

    private static Study study(Quantity... quantities) {
        List<Reading> readings = new ArrayList<>();
        for (Quantity q : quantities) {
            readings.add(
                    new Reading("m" + q.id(), "mean " + q.name(), "", new TallyOf(List.of("all"), new Mean(q.id()))));
            readings.add(new Reading(
                    "i" + q.id(), "int " + q.name(), "", new TallyOf(List.of("skin"), new Integral(q.id()))));
        }
        return Study.empty("s")
                .withSources(l -> List.of(SOURCE))
                .withQuantities(l -> List.of(quantities))
                .withStations(l -> List.of(
                        new Station("all", "all", new Region(new Within.All())),
                        new Station("skin", "skin", new OnPart("boundary"))))
                .withReadings(l -> readings);
    }

    private static double number(Results results, String reading) {
        Outcome made = results.outcome(reading, "k");
        assertThat(made).as(made instanceof Outcome.Absent a ? a.reason() : "").isInstanceOf(Tally.class);
        return made.numbers().getFirst().value();
    }

    @Test
    void whatIsReadAgainUnchangedRecomputesNothingAndWhatChangedIsNoticed() throws IOException {
        series(4);
        var library = new FileLibrary(folder);
        var evaluator = new Evaluator(library);
        Study s = study(new Quantity("w", "w", "moisture", "kg/m3", ""));
        double mean = number(evaluator.evaluate(s, Work.QUIET), "mw");
        assertThat(mean).isCloseTo(100 + 3 - 3, within(1e-9));
        int all = evaluator.computed();
        Files.setLastModifiedTime(folder.resolve("kiln_003.vtu"), FileTime.fromMillis(1_000_000));
        assertThat(library.changed(s)).containsExactly("k");
        library.reload(s, Set.of("k"));
        assertThat(number(evaluator.evaluate(s, Work.QUIET), "mw")).isEqualTo(mean);
        assertThat(evaluator.computed()).as("the same content").isEqualTo(all);
        assertThat(library.changed(s)).isEmpty();
        // A run that goes on writing.
        write("kiln_004.vtu", KILN, 4, VtkXmlWriter.Options.DEFAULT);
        assertThat(library.changed(s)).as("a file more").containsExactly("k");
        Mesh before = library.run(SOURCE, TimeSelector.LAST, Work.QUIET).mesh();
        library.reload(s, Set.of("k"));
        Results later = evaluator.evaluate(s, Work.QUIET);
        assertThat(later.runs().get("k").times()).hasSize(5);
        assertThat(later.runs().get("k").mesh()).isSameAs(before);
        assertThat(number(later, "mw")).isCloseTo(100 + 3 - 4, within(1e-9));
        // Another content under the same name.
        write("kiln_004.vtu", KILN, 50, VtkXmlWriter.Options.DEFAULT);
        library.reload(s, Set.of("k"));
        assertThat(number(evaluator.evaluate(s, Work.QUIET), "mw")).isCloseTo(103 - 50, within(1e-9));
    }

    @Test
    void aFormulaOverSixTimesReadsEachOnceAndTellsWhichItRead() throws IOException {
        series(12);
        var library = new FileLibrary(folder);
        var evaluator = new Evaluator(library);
        Study s = study(new Quantity(
                "d",
                "d",
                "moisture at 0 + moisture at 2 + moisture at 4 + moisture at 6 + moisture at 8 - 5*moisture",
                "",
                ""));
        Results first = evaluator.evaluate(s, Work.QUIET);
        assertThat(number(first, "md")).isCloseTo(-(2 + 4 + 6 + 8) + 5 * 11, within(1e-8));
        assertThat(first.outcome("md", "k").trail().inputs())
                .extracting(i -> i.path())
                .contains("kiln_000.vtu", "kiln_002.vtu", "kiln_008.vtu", "kiln_011.vtu");
        assertThat(first.outcome("md", "k").trail().steps().toString())
                .contains("this run at 2.0=2.0")
                .contains("this run at 8.0=8.0");
        int computed = evaluator.computed();
        long reads = Shelf.reads();
        evaluator.evaluate(s, Work.QUIET);
        assertThat(evaluator.computed()).isEqualTo(computed);
        assertThat(Shelf.reads()).isEqualTo(reads);
    }

    @Test
    void eachFileOfASeriesIsOpenedOnceToLearnItsTime() throws IOException {
        series(3);
        var opened = new ArrayList<Path>();
        Series.of(folder.resolve("kiln_*.vtu"), f -> {
            opened.add(f);
            return opened.size();
        });
        assertThat(opened).hasSize(3).doesNotHaveDuplicates();
        // A library does not open those again that look the same: the second file's new words do not count as yet.
        String said =
                "<FieldData><DataArray type=\"Float64\" Name=\"TimeValue\" NumberOfTuples=\"1\" format=\"ascii\">%d"
                        + "</DataArray></FieldData>";
        for (int t = 0; t < 3; t++) {
            Path f = folder.resolve(String.format("kiln_%03d.vtu", t));
            byte[] bytes = Files.readAllBytes(f);
            String text = new String(bytes, StandardCharsets.ISO_8859_1);
            String with = text.replaceFirst("<Piece", String.format(said, t + 5) + "<Piece");
            Files.write(f, with.getBytes(StandardCharsets.ISO_8859_1));
        }
        var library = new FileLibrary(folder);
        assertThat(at(library, 7).times()).containsExactly(5., 6., 7.);
        Path second = folder.resolve("kiln_001.vtu");
        FileTime stamp = Files.getLastModifiedTime(second);
        byte[] bytes = Files.readAllBytes(second);
        byte[] other = new String(bytes, StandardCharsets.ISO_8859_1)
                .replace(">6</DataArray>", ">9</DataArray>")
                .getBytes(StandardCharsets.ISO_8859_1);
        try (var channel = java.nio.channels.FileChannel.open(second, java.nio.file.StandardOpenOption.WRITE)) {
            channel.write(ByteBuffer.wrap(other));
        }
        Files.setLastModifiedTime(second, stamp);
        assertThat(at(library, 5).times()).containsExactly(5., 6., 7.);
    }

    @Test
    void numbersOfAFileThatChangedAfterItWasOpenedAreRefused() throws IOException {
        series(2);
        var library = new FileLibrary(folder);
        Run run = at(library, 1);
        assertThat(sum(run, "T")).isEqualTo(301);
        write("kiln_001.vtu", KILN, 77, VtkXmlWriter.Options.UNPACKED);
        assertThat(sum(run, "T")).as("in memory").isEqualTo(301);
        Field moisture = run.field("moisture").orElseThrow();
        assertThatThrownBy(moisture::values)
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("kiln_001.vtu was changed after it was opened");
    }

    @Test
    void partsOfAVolumeKeepTheirSurfaceOverTimeAndTheirOwnValues() throws IOException {
        series(3);
        for (int t = 0; t < 3; t++) {
            Part skin = at(new FileLibrary(folder), 0).parts().getFirst();
            float[] flux = new float[skin.surface().cellCount()];
            Arrays.fill(flux, 10 + t);
            VtkXmlWriter.writeSurface(
                    folder.resolve("door_" + t + ".vtp"),
                    skin.surface(),
                    List.of(new Field("flux", Field.At.CELL, 1, Unit.UNKNOWN, new Values.Floats(flux))),
                    VtkXmlWriter.Options.DEFAULT);
        }
        var library = new FileLibrary(folder);
        var source = new Source.Simulation("k", "kiln", "kiln_*.vtu", List.of("door_*.vtp"), "", "f");
        Run zero = library.run(source, new TimeSelector.At(0, 0), Work.QUIET);
        Run two = library.run(source, new TimeSelector.At(2, 0), Work.QUIET);
        assertThat(two.parts().getFirst().surface())
                .isSameAs(zero.parts().getFirst().surface());
        assertThat(two.parts().getFirst().node())
                .isSameAs(zero.parts().getFirst().node());
        assertThat(zero.parts().getFirst().field("flux").orElseThrow().values().get(0))
                .isEqualTo(10);
        assertThat(two.parts().getFirst().field("flux").orElseThrow().values().get(0))
                .isEqualTo(12);
        assertThat(two.inputs()).extracting(i -> i.path()).containsExactly("kiln_002.vtu", "door_2.vtp");
    }

    /** One file that holds both times of a door's flux: what is made of it at one time is no answer for the other. */
    @Test
    void valuesOfAPartWhoseFileHoldsAllTimesAreThoseOfTheTime() throws IOException {
        series(2);
        Part skin = at(new FileLibrary(folder), 0).parts().getFirst();
        for (int t = 0; t < 2; t++) {
            double[] flux = new double[skin.surface().cellCount()];
            Arrays.fill(flux, 10 + t);
            XdmfWriter.write(
                    folder.resolve("door" + t + ".xdmf"),
                    skin.surface(),
                    List.of(new Field("flux", Field.At.CELL, 1, Unit.UNKNOWN, Values.of(flux))));
        }
        String zero = Files.readString(folder.resolve("door0.xdmf"));
        String one = Files.readString(folder.resolve("door1.xdmf"));
        String a = zero.substring(zero.indexOf("<Grid"), zero.indexOf("</Grid>") + 7);
        String b = one.substring(one.indexOf("<Grid"), one.indexOf("</Grid>") + 7);
        Files.writeString(
                folder.resolve("door.xdmf"),
                zero.replace(
                        a,
                        "<Grid Name=\"t\" GridType=\"Collection\" CollectionType=\"Temporal\">"
                                + a.replaceFirst(">", "><Time Value=\"0\"/>")
                                + b.replaceFirst(">", "><Time Value=\"1\"/>")
                                + "</Grid>"));
        XdmfWriter.write(folder.resolve("one.xdmf"), KILN, fields(KILN, 4));
        String volume = Files.readString(folder.resolve("one.xdmf"));
        String grid = volume.substring(volume.indexOf("<Grid"), volume.indexOf("</Grid>") + 7);
        Files.writeString(
                folder.resolve("all.xdmf"),
                volume.replace(
                        grid,
                        "<Grid Name=\"t\" GridType=\"Collection\" CollectionType=\"Temporal\">"
                                + grid.replaceFirst(">", "><Time Value=\"0\"/>")
                                + grid.replaceFirst(">", "><Time Value=\"1\"/>") + "</Grid>"));
        var source = new Source.Simulation("k", "kiln", "all.xdmf", List.of("door.xdmf"), "", "f");
        var library = new FileLibrary(folder);
        Run first = library.run(source, new TimeSelector.At(0, 0), Work.QUIET);
        Run second = library.run(source, new TimeSelector.At(1, 0), Work.QUIET);
        Field early = first.parts().getFirst().field("flux").orElseThrow();
        Field late = second.parts().getFirst().field("flux").orElseThrow();
        assertThat(early.values().get(0)).isEqualTo(10);
        assertThat(late.values().get(0)).isEqualTo(11);
        assertThat(late.stored()).isNotEqualTo(early.stored());
    }

    @Test
    void aFileThatCouldNotBeReadIsTriedAgainWhenItIsBack() throws IOException {
        series(1);
        Path file = folder.resolve("kiln_000.vtu");
        byte[] sound = Files.readAllBytes(file);
        var library = new FileLibrary(folder);
        var evaluator = new Evaluator(library);
        Study s = study(new Quantity("w", "w", "moisture", "kg/m3", ""));
        library.run(SOURCE, TimeSelector.LAST, Work.QUIET);
        Files.write(file, new byte[10]);
        Outcome none = evaluator.evaluate(s, Work.QUIET).outcome("mw", "k");
        assertThat(none).isInstanceOf(Outcome.Absent.class);
        assertThat(((Outcome.Absent) none).reason()).contains("changed after it was opened");
        Files.write(file, sound);
        library.reload(s, Set.of("k"));
        assertThat(number(evaluator.evaluate(s, Work.QUIET), "mw")).isCloseTo(103, within(1e-9));
    }

    @Test
    void aFileMoreStaysNewsThoughAnotherTimeIsLookedAt() throws IOException {
        series(3);
        var library = new FileLibrary(folder);
        Study s = study();
        library.run(SOURCE, TimeSelector.LAST, Work.QUIET);
        write("kiln_003.vtu", KILN, 3, VtkXmlWriter.Options.DEFAULT);
        at(library, 1);
        assertThat(library.changed(s)).containsExactly("k");
        library.reload(s, Set.of("k"));
        library.run(SOURCE, TimeSelector.LAST, Work.QUIET);
        assertThat(library.changed(s)).isEmpty();
    }

    /** Of times that are passed by a few are held; that their files changed is noticed all the same. */
    @Test
    void timesThatArePassedByAreLetGoOf() throws Exception {
        series(30);
        var library = new FileLibrary(folder);
        Run looked = at(library, 4);
        var held = new ArrayList<java.lang.ref.WeakReference<Run>>();
        for (int t = 0; t < 30; t++) {
            Run run = library.passing(SOURCE, new TimeSelector.At(t, 0), Work.QUIET);
            assertThat(sum(run, "T")).isCloseTo(300 + t, within(1e-3));
            held.add(new java.lang.ref.WeakReference<>(run));
        }
        for (int i = 0; i < 50 && held.stream().filter(r -> r.get() != null).count() > 12; i++) {
            System.gc();
            Thread.sleep(20);
        }
        assertThat(held.stream().filter(r -> r.get() != null).count()).isLessThanOrEqualTo(12);
        // The one that is looked at is another matter.
        assertThat(at(library, 4)).isSameAs(looked);
        Study study = Study.empty("kiln").withSources(l -> List.of(SOURCE));
        assertThat(library.changed(study)).isEmpty();
        write("kiln_002.vtu", KILN, 77, VtkXmlWriter.Options.DEFAULT);
        assertThat(library.changed(study)).containsExactly("k");
    }
}
