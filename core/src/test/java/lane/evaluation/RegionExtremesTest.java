package lane.evaluation;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import lane.base.BoundedMemo;
import lane.field.Field;
import lane.field.Run;
import lane.field.Stated;
import lane.field.Values;
import lane.mesh.Axis;
import lane.mesh.BoxMesh;
import lane.mesh.Cell;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;

/** Least and greatest of a kiln's stored numbers, of whatever type, against a look at each of them. */
class RegionExtremesTest {
    private static final Mesh MESH =
            BoxMesh.of(CellShape.HEXAHEDRON, new int[] {5, 4, 3}, new double[] {5, 4, 3}, 0.1, 7);

    /** Few different numbers, so that several are the least. */
    private static Values some(Random random, int n, int type) {
        double[] v = random.ints(n, -4, 5).asDoubleStream().toArray();
        if (random.nextInt(3) == 0) {
            v[random.nextInt(n)] = Double.NaN;
        }
        float[] single = new float[n];
        for (int i = 0; i < n; i++) {
            single[i] = (float) v[i];
        }
        return switch (type) {
            case 0 -> Values.of(v);
            case 1 -> new Values.Floats(single);
            default -> new Values.Ints(Arrays.stream(v).mapToInt(x -> (int) x).toArray());
        };
    }

    @Test
    void theFirstOfTheLeastAndOfTheGreatestInSiUnits() {
        var random = new Random(11);
        var lens = EvaluationContext.of(List.of(), List.of(), Axis.Z);
        for (int trial = 0; trial < 300; trial++) {
            Field.At at = random.nextBoolean() ? Field.At.NODE : Field.At.CELL;
            int n = at == Field.At.NODE ? MESH.nodeCount() : MESH.cellCount();
            Values values = some(random, n, random.nextInt(3));
            Unit unit = Unit.of(List.of("K", "degC", "mbar").get(random.nextInt(3)));
            var run = new Run(
                    MESH,
                    List.of(new Field("t", at, 1, unit, values)),
                    List.of(),
                    List.of(),
                    List.of(),
                    List.of(),
                    0,
                    Stated.NOTHING,
                    trial);
            int[] cells = random.nextBoolean()
                    ? IntStream.range(0, MESH.cellCount()).toArray()
                    : IntStream.range(0, MESH.cellCount())
                            .filter(c -> c % 3 > 0)
                            .toArray();
            for (boolean greatest : List.of(true, false)) {
                var region = new RegionIntegral(run, cells, lens).keeping(new BoundedMemo(1 << 20));
                RegionIntegral.Located made = region.extreme(lens.quantity("t"), greatest);
                int best = best(values, cells, at, greatest);
                assertThat(made.value()).isCloseTo(unit.toSi(values.get(best)), within(1e-12));
                double[] place = Arrays.copyOfRange(MESH.xyz(), 3 * best, 3 * best + 3);
                if (at == Field.At.CELL) {
                    new Cell(MESH).load(best).centre(place);
                }
                assertThat(new double[] {
                            made.place().x(), made.place().y(), made.place().z()
                        })
                        .isEqualTo(place);
            }
        }
    }

    private static int best(Values values, int[] cells, Field.At at, boolean greatest) {
        int best = -1;
        for (int c : cells) {
            int[] looked = at == Field.At.CELL
                    ? new int[] {c}
                    : Arrays.copyOfRange(MESH.nodes(), MESH.begin(c), MESH.begin(c) + MESH.size(c));
            for (int i : looked) {
                double v = values.get(i);
                boolean better = best < 0 || (greatest ? v > values.get(best) : v < values.get(best));
                best = !Double.isNaN(v) && better ? i : best;
            }
        }
        return best;
    }
}
