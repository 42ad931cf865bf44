package lane.formats;

import java.lang.ref.SoftReference;
import java.nio.file.Path;
import lane.base.Fault;
import lane.base.LaneException;
import lane.base.Work;
import lane.field.Deferred;
import lane.field.Field;
import lane.field.TimeSelector;
import lane.formats.grid.Dataset;
import lane.formats.io.FileStamp;

/**
 * Fields of formats that can only be read as a whole: their numbers are there at once, and when memory was short, the file is
 * read again for all of them.
 */
final class FieldsAgain {
    private final FileStamp stamp;
    private final TimeSelector moment;
    private SoftReference<Dataset> last = new SoftReference<>(null);

    FieldsAgain(Path file, Dataset read) {
        stamp = FileStamp.of(file);
        moment = Double.isNaN(read.time()) || read.times().size() < 2
                ? TimeSelector.LAST
                : new TimeSelector.At(read.time(), 0);
    }

    /** @param group the named surface that has the field; blank for the mesh itself */
    Field field(Object key, String group, Field field) {
        if (field.stored() instanceof Deferred) {
            return field.named(key);
        }
        return new Field(
                field.name(),
                field.at(),
                field.components(),
                field.unit(),
                Deferred.held(key, field.stored(), () -> again(group, field.name(), field.at())
                        .values()));
    }

    private synchronized Field again(String group, String name, Field.At at) {
        Dataset there = last.get();
        if (there == null) {
            there = stamp.reading(() -> DatasetReader.read(stamp.file(), moment, Work.QUIET));
            last = new SoftReference<>(there);
        }
        return (group.isEmpty()
                        ? there.fields().stream()
                        : there.groups().stream()
                                .filter(g -> g.name().equals(group))
                                .flatMap(g -> g.fields().stream()))
                .filter(f -> f.name().equals(name) && f.at() == at)
                .findFirst()
                .orElseThrow(() -> new LaneException(
                        Fault.DAMAGED, "The file " + stamp.file().getFileName() + " lost its array \"" + name + "\"."));
    }
}
