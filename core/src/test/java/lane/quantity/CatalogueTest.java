package lane.quantity;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Map;
import lane.evaluation.EvaluationContext;
import lane.field.Field;
import lane.field.PartBuilder;
import lane.field.Run;
import lane.field.Stated;
import lane.field.Values;
import lane.mesh.Axis;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.reading.Ranges;
import lane.unit.Unit;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;

/** Each entry of the catalogue on fields that are the same everywhere, against numbers made by hand. */
class CatalogueTest {
    private static final Mesh MESH =
            BoxMesh.of(CellShape.TETRAHEDRON, new int[] {3, 3, 3}, new double[] {1, 1, 1}, 0.2, 5);
    /** Files have names of their own. */
    private static final Map<String, String> NAMES = Map.of(
            "velocity",
            "U",
            "pressure",
            "p rel",
            "temperature",
            "T",
            "wall shear",
            "tau w",
            "stress",
            "S",
            "heat flux",
            "q",
            "turbulence energy",
            "k",
            "dissipation",
            "eps");

    private static Field field(String name, String unit, double... each) {
        double[] v = new double[each.length * MESH.nodeCount()];
        for (int i = 0; i < v.length; i++) {
            v[i] = each[i % each.length];
        }
        return new Field(name, Field.At.NODE, each.length, Unit.of(unit), Values.of(v));
    }

    private static final Run RUN = new Run(
            MESH,
            List.of(
                    field("U", "m/s", 1, 2, 2),
                    field("p rel", "Pa", 500),
                    field("T", "K", 300),
                    field("tau w", "Pa", 0, 0, 87),
                    field("S", "MPa", 10, 20, 30, 0, 0, 0),
                    field("q", "W/m2", 0, 0, 0),
                    field("k", "m2/s2", 4),
                    field("eps", "m2/s3", 2)),
            List.of(new PartBuilder(MESH).whole("skin")),
            List.of(),
            List.of(),
            List.of(),
            0,
            Stated.NOTHING);

    private static Catalogue.Entry entry(String name) {
        return Catalogue.all().stream()
                .filter(e -> e.name().equals(name))
                .findFirst()
                .orElseThrow();
    }

    private static Ranges ranges(String name) {
        Quantity q = entry(name).take("c", NAMES);
        assertThat(q.name()).isEqualTo(name);
        return Ranges.of(RUN, q, EvaluationContext.of(List.of(q), List.of(), Axis.Z));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "speed; 3",
                "dynamic pressure; 3915",
                "total pressure; 4415",
                "pressure coefficient; 1.1494252873563218",
                "Reynolds number; 156.6",
                "Mach number; 0.008640081396862237",
                "wall friction velocity; 0.31622776601683794",
                "turbulence length scale; 0.6572670690061994",
                "equivalent stress; 17320508.07568877",
                "greatest principal stress; 30e6",
                "standard gravity; 9.80665",
                "molar gas constant; 8.31446261815324",
                "Stefan-Boltzmann constant; 5.670374419e-8",
                "speed of light; 299792458",
            })
    void numbersInBaseUnits(String name, double expected) {
        Ranges r = ranges(name);
        assertThat(r.least()).isCloseTo(expected, within(1e-9 * Math.max(1e-3, expected)));
        assertThat(r.greatest()).isCloseTo(expected, within(1e-9 * Math.max(1e-3, expected)));
        assertThat(r.absent()).isZero();
    }

    static java.util.stream.Stream<Catalogue.Entry> entries() {
        return Catalogue.all().stream();
    }

    /** Constants tell their source; a formula that needs numbers of the user's says which. */
    @ParameterizedTest
    @MethodSource("entries")
    void everyEntryIsWholeAndTold(Catalogue.Entry e) {
        Quantity q = e.take("c", Map.of());
        assertThat(q.formula()).doesNotContain("{").doesNotContain("}");
        assertThat(Catalogue.all()).filteredOn(o -> o.name().equals(e.name())).hasSize(1);
        if (e.constant()) {
            assertThat(e.note()).matches(".*\\d{4}.*");
        }
        if (e.formula().contains("870")) {
            // The oil's density is only an example.
            assertThat(e.note()).contains("put ");
        }
        if (!e.unit().isEmpty()) {
            assertThat(Unit.of(e.unit()).known()).isTrue();
        }
    }
}
