package lane.formats;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Function;
import lane.base.BoundedMemo;
import lane.base.Work;
import lane.field.Field;
import lane.field.TimeSelector;
import lane.formats.grid.Dataset;
import lane.formats.grid.Opening;

/** Reads a file in both ways, at once and on demand, and sees that they say the same, also when its mesh is known by then. */
final class Both {
    private Both() {}

    static Dataset read(Path file, Work work) {
        return read(file, TimeSelector.LAST, work);
    }

    /** At once, and every fourth file on demand too: for tests that read very many. */
    static Function<Path, Dataset> now() {
        var count = new AtomicInteger();
        return f -> read(f, TimeSelector.LAST, Work.QUIET, count.getAndIncrement() % 4 == 0 ? 1 : 0);
    }

    static Dataset read(Path file, TimeSelector moment, Work work) {
        return read(file, moment, work, 2);
    }

    private static Dataset read(Path file, TimeSelector moment, Work work, int passes) {
        Dataset whole = DatasetReader.read(file, moment, work);
        var known = new BoundedMemo(1L << 28);
        for (int pass = 0; pass < passes; pass++) {
            Dataset later = DatasetReader.open(file, moment, Opening.onDemand(known), work);
            assertThat(later.mesh().key()).isEqualTo(whole.mesh().key());
            assertThat(later.times()).isEqualTo(whole.times());
            assertThat(Double.compare(later.time(), whole.time())).isZero();
            assertThat(later.remarks()).isEqualTo(whole.remarks());
            assertThat(later.files()).containsExactlyInAnyOrderElementsOf(whole.files());
            assertThat(later.labels()).isEqualTo(whole.labels());
            same(later.fields(), whole.fields());
            assertThat(later.groups()).extracting(Dataset.Group::name).isEqualTo(names(whole));
            for (int g = 0; g < whole.groups().size(); g++) {
                assertThat(later.groups().get(g).surface().key())
                        .isEqualTo(whole.groups().get(g).surface().key());
                same(later.groups().get(g).fields(), whole.groups().get(g).fields());
            }
        }
        return whole;
    }

    /** The numbers of a field. */
    static double[] values(Dataset d, String name) {
        Field f = d.fields().stream()
                .filter(x -> x.name().equals(name))
                .findFirst()
                .orElseThrow();
        double[] out = new double[f.values().length()];
        Arrays.setAll(out, f.values()::get);
        return out;
    }

    private static List<String> names(Dataset of) {
        return of.groups().stream().map(Dataset.Group::name).toList();
    }

    private static void same(List<Field> later, List<Field> whole) {
        assertThat(later)
                .extracting(Field::name)
                .isEqualTo(whole.stream().map(Field::name).toList());
        for (int i = 0; i < whole.size(); i++) {
            Field a = later.get(i);
            Field b = whole.get(i);
            assertThat(List.of(a.at(), a.components(), a.unit(), a.size()))
                    .isEqualTo(List.of(b.at(), b.components(), b.unit(), b.size()));
            assertThat(a.values().getClass()).isEqualTo(b.values().getClass());
            for (int k = 0; k < b.values().length(); k++) {
                assertThat(Double.compare(a.values().get(k), b.values().get(k))).isZero();
            }
        }
    }
}
