package lane.demo;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import lane.base.Work;
import lane.estimate.Estimate;
import lane.field.Field;
import lane.field.PartBuilder;
import lane.field.Values;
import lane.formats.DatasetReader;
import lane.formats.FileLibrary;
import lane.formats.grid.Dataset;
import lane.formats.study.StudyJson;
import lane.formats.vtk.VtkXmlWriter;
import lane.formats.vtk.VtkXmlWriter.Options;
import lane.mesh.Mesh;
import lane.reading.Outcome;
import lane.reading.Profile;
import lane.reading.Reading;
import lane.reading.Scalar;
import lane.study.Evaluator;
import lane.study.Results;
import lane.study.ShapingUnits;
import lane.study.Study;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** The same bed once more in millimetres, kilopascals and kilometres an hour: every kind of reading says the same of both. */
class UnitsOfEveryKindTest {
    @TempDir
    Path folder;

    private static Values times(Field f, double factor) {
        double[] out = new double[f.values().length()];
        for (int i = 0; i < out.length; i++) {
            out[i] = factor * f.values().get(i);
        }
        return Values.of(out);
    }

    /** The dry bed in other units, as a lane that comes first, so that the others are told in its units. */
    private Study twice(boolean stated) throws Exception {
        ObjectNode study = Bed.in(folder);
        Map<String, Double> other = Map.of("wet", 1e-3, "air", 3.6, "drag", 1e-2);
        Dataset dry = DatasetReader.read(folder.resolve("dry.vtu"), Work.QUIET);
        Mesh large = dry.mesh().scaled(1000);
        VtkXmlWriter.writeGrid(
                folder.resolve("same.vtu"),
                large,
                dry.fields().stream()
                        .map(f -> new Field(f.name(), f.at(), f.components(), f.unit(), times(f, other.get(f.name()))))
                        .toList(),
                Options.DEFAULT);
        VtkXmlWriter.writeSurface(
                java.nio.file.Files.createDirectory(folder.resolve("large")).resolve("skin.vtp"),
                new PartBuilder(large).whole("skin").surface(),
                List.of(),
                Options.DEFAULT);
        for (var q : study.withArray("quantities")) {
            if (!stated) {
                ((ObjectNode) q).put("unit", "");
            }
        }
        ArrayNode sources = study.withArray("sources");
        ObjectNode same = sources.get(1).deepCopy();
        same.put("id", "same").put("name", "same").put("file", "same.vtu");
        same.putArray("partFiles").add("large/skin.vtp");
        ObjectNode treatment = (ObjectNode) same.get("treatment");
        treatment.put("length", "mm");
        treatment.putObject("units").put("wet", "kPa").put("air", "km/h").put("drag", "hPa");
        sources.insert(0, same);
        return StudyJson.of(study.toString(), "study");
    }

    /** A number that shapes a station is in the unit of its quantity: without one it is told that it means another thing in each lane. */
    private static final List<String> SHAPED = List.of("m-front", "m-wetter", "m-bag");

    @ParameterizedTest
    @ValueSource(booleans = {true, false})
    void lanesInOtherUnitsAreToldAlike(boolean stated) throws Exception {
        Study study = twice(stated);
        Results made = new Evaluator(new FileLibrary(folder)).evaluate(study, Work.QUIET);
        assertThat(ShapingUnits.doubts(made)).hasSize(stated ? 0 : 2).allSatisfy(d -> assertThat(d)
                .contains("taken in kPa for same and in Pa for")
                .contains("\"wet\" has no unit of its own"));
        int told = 0;
        for (Reading r : study.readings()) {
            // The one lane is the datum of these; and of edges with the same jump any may be the greatest.
            if (List.of("agrees", "differs", "steps-edges").contains(r.id()) || !stated && SHAPED.contains(r.id())) {
                continue;
            }
            Outcome a = made.outcome(r.id(), "dry");
            Outcome b = made.outcome(r.id(), "same");
            assertThat(a instanceof Outcome.Absent).as(r.id()).isEqualTo(b instanceof Outcome.Absent);
            assertThat(a.unit()).as(r.id()).isEqualTo(b.unit());
            List<Estimate> one = made.numbers(r.id()).get("dry");
            List<Estimate> two = made.numbers(r.id()).get("same");
            for (int k = 0; k < one.size(); k++) {
                String what = r.id() + ", number " + k;
                assertThat(one.get(k).unit().label())
                        .as(what)
                        .isEqualTo(two.get(k).unit().label());
                alike(what, one.get(k).value(), two.get(k).value());
                told++;
            }
            List<Scalar> rows = made.scalars(r.id(), "dry");
            List<Scalar> others = made.scalars(r.id(), "same");
            assertThat(rows)
                    .as(r.id())
                    .extracting(Scalar::what)
                    .isEqualTo(others.stream().map(Scalar::what).toList());
            for (int k = 0; k < rows.size(); k++) {
                Estimate x = rows.get(k).estimate();
                Estimate y = others.get(k).estimate();
                String what = r.id() + ", " + rows.get(k).what();
                alike(what, x.value(), y.value());
                assertThat(made.shown(r.id(), x.unit()).label())
                        .as(what)
                        .isEqualTo(made.shown(r.id(), y.unit()).label());
            }
            if (a.curve().isPresent()) {
                curves(r.id(), a.curve().get(), b.curve().orElseThrow());
                told++;
            }
        }
        assertThat(told).isGreaterThan(100);
    }

    private static void curves(String reading, Profile a, Profile b) {
        assertThat(a.size()).as(reading).isEqualTo(b.size());
        for (int i = 0; i < a.size(); i++) {
            alike(reading, a.abscissa()[i], b.abscissa()[i]);
            alike(reading, a.value()[i], b.value()[i]);
        }
    }

    private static void alike(String what, double x, double y) {
        if (Double.isNaN(x)) {
            assertThat(y).as(what).isNaN();
        } else {
            assertThat(y).as(what).isCloseTo(x, within(1e-9 * Math.max(Math.abs(x), 1e-3)));
        }
    }
}
