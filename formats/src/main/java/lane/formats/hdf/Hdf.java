package lane.formats.hdf;

import io.jhdf.AbstractNode;
import io.jhdf.HdfFile;
import io.jhdf.api.Attribute;
import io.jhdf.api.Dataset;
import io.jhdf.api.Group;
import io.jhdf.api.Link;
import io.jhdf.api.Node;
import io.jhdf.api.dataset.ChunkedDataset;
import io.jhdf.api.dataset.ContiguousDataset;
import io.jhdf.exceptions.HdfException;
import io.jhdf.links.ExternalLink;
import io.jhdf.object.message.FillValueMessage;
import java.nio.ByteBuffer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Function;
import lane.field.Deferred;
import lane.field.Values;
import lane.formats.io.Budget;
import lane.formats.io.FileErrors;
import lane.formats.io.FileStamp;
import lane.formats.io.FormatError;
import org.jspecify.annotations.Nullable;

/** What the readers of HDF5 files need: nodes by name, numbers in the types of fields, faults as sentences. */
final class Hdf {
    /** Of the file that this thread is reading. */
    private static final ThreadLocal<Budget> BUDGET = ThreadLocal.withInitial(() -> new Budget(0));

    /** What is to be said about the file that this thread is reading. */
    private static final ThreadLocal<Set<String>> NOTES = ThreadLocal.withInitial(LinkedHashSet::new);

    private static final int MOST_LINKS = 32;

    private Hdf() {}

    static <T> T read(Path file, Function<HdfFile, T> reader) {
        return FileErrors.of(file, () -> {
            if (!Files.isReadable(file)) {
                throw new lane.base.LaneException(
                        "The file " + file + " cannot be read: it is not there or is closed to you.");
            }
            BUDGET.set(new Budget(file.toFile().length()));
            NOTES.set(new LinkedHashSet<>());
            try (var hdf = open(file)) {
                return reader.apply(hdf);
            } catch (FormatError | lane.base.LaneException | java.util.concurrent.CancellationException e) {
                throw e;
            } catch (HdfException
                    | IllegalArgumentException
                    | ClassCastException
                    | UnsupportedOperationException
                    | NullPointerException
                    | IllegalStateException
                    | java.nio.BufferUnderflowException
                    | java.util.NoSuchElementException e) {
                String why = e.getMessage() == null ? e.getClass().getSimpleName() : e.getMessage();
                throw new FormatError("it is no sound HDF5 file ("
                        + why.substring(0, Math.min(120, why.length())).replaceAll("\\s+", " ") + ")");
            }
        });
    }

    /** Mapped where one buffer can hold it: what a damaged file claims then ends at its end, and is not allocated first. */
    private static HdfFile open(Path file) {
        try (var channel = java.nio.channels.FileChannel.open(file)) {
            container(channel);
            return channel.size() > Integer.MAX_VALUE
                    ? new HdfFile(file)
                    : HdfFile.fromByteBuffer(
                            channel.map(java.nio.channels.FileChannel.MapMode.READ_ONLY, 0, channel.size()));
        } catch (java.io.IOException e) {
            throw lane.formats.io.FileHash.unreadable(file, e);
        }
    }

    /** The older container of CGNS is told by its name: it is sound, and of no use here. */
    private static void container(java.nio.channels.FileChannel channel) throws java.io.IOException {
        var head = java.nio.ByteBuffer.allocate(32);
        channel.read(head, 0);
        String text = new String(head.array(), java.nio.charset.StandardCharsets.ISO_8859_1);
        if (text.contains("ADF Database")) {
            throw FormatError.unsupported(
                    "it is CGNS in the older container, ADF; write it again in the HDF5 container,"
                            + " which every CGNS library since version 3 can do");
        }
    }

    /** What was met in the file so far that its values alone do not tell: blocks that nobody wrote. */
    static List<String> notes() {
        return List.copyOf(NOTES.get());
    }

    /** What was met since it was last asked. */
    static List<String> notes(List<String> before) {
        return NOTES.get().stream().filter(n -> !before.contains(n)).toList();
    }

    /** A child, or null. Links inside the file are followed. */
    static @Nullable Node child(Group group, String name) {
        return followed(group, name, 0);
    }

    /** A child, or null and a note when it is a link that leads nowhere or out of the file. */
    static @Nullable Node optional(Group group, String name) {
        try {
            return child(group, name);
        } catch (FormatError e) {
            if (!(group.getChildren().get(name) instanceof Link)) {
                throw e;
            }
            NOTES.get().add("Not read: " + e.getMessage() + ".");
            return null;
        }
    }

    /** @param links followed on the way here, so that a ring of them ends */
    private static @Nullable Node followed(Group group, String name, int links) {
        Node found = group.getChildren().get(name);
        if (found instanceof Group g
                && text(g, "type").equals("LK")
                && g.getChildren().containsKey(" link")) {
            // How CGNS writes a link: a node of its own around one.
            return followed(g, " link", links + 1);
        }
        if (!(found instanceof Link link)) {
            return found;
        }
        if (link instanceof ExternalLink) {
            throw FormatError.unsupported("\"" + name + "\" is a link into another file, which is not followed");
        }
        if (links > MOST_LINKS) {
            throw new FormatError("\"" + name + "\" is a link that leads to links, more than " + MOST_LINKS);
        }
        String path = link.getTargetPath();
        if (path.isBlank()) {
            throw new FormatError("\"" + name + "\" is a link that leads nowhere");
        }
        Node at = path.startsWith("/") ? group.getHdfFile() : group;
        for (String step : path.split("/+")) {
            if (step.isEmpty() || step.equals(".")) {
                continue;
            }
            at = at instanceof Group g ? followed(g, step, links + 1) : null;
            if (at == null) {
                throw new FormatError("\"" + name + "\" is a link to \""
                        + path.substring(0, Math.min(80, path.length())) + "\", which the file does not have");
            }
        }
        return at;
    }

    static @Nullable Group group(Group parent, String name) {
        return child(parent, name) instanceof Group g ? g : null;
    }

    static Group needGroup(Group parent, String name) {
        Group g = group(parent, name);
        if (g == null) {
            throw new FormatError("it lacks the group \"" + name + "\" in " + parent.getPath());
        }
        return g;
    }

    static @Nullable Dataset data(Group parent, String name) {
        return child(parent, name) instanceof Dataset d ? d : null;
    }

    static Dataset need(Group parent, String name) {
        Dataset d = data(parent, name);
        if (d == null) {
            throw new FormatError("it lacks the array \"" + name + "\" in " + parent.getPath());
        }
        return d;
    }

    static String text(Group group, String attribute) {
        Attribute a = group.getAttributes().get(attribute);
        if (a == null) {
            return "";
        }
        Object v = a.getData();
        return v instanceof String[] s
                ? s.length == 0 ? "" : s[0].strip()
                : String.valueOf(v).strip();
    }

    static double[] attribute(Group group, String name, double... otherwise) {
        Attribute a = group.getAttributes().get(name);
        return a == null ? otherwise : doubles(values(a.getData(), name));
    }

    /** All numbers of an array, in the narrowest type of fields that holds them; sizes are checked against the file. */
    static Values values(Dataset data) {
        if (data.getSize() > Integer.MAX_VALUE - 16) {
            throw FormatError.tooLarge("array \"" + data.getName() + "\" has " + data.getSize()
                    + " numbers, which is more than this program holds");
        }
        sound(data);
        BUDGET.get().take(data.getSizeInBytes());
        if (data.getSize() == 0) {
            return new Values.Doubles(new double[0]);
        }
        int[] dims = data.getDimensions();
        Object stored = stored(data, new long[dims.length], dims, (int) data.getSize());
        return values(stored == null ? data.getDataFlat() : stored, data.getName());
    }

    /** Refuses an array whose written part is more than what the file stores of it can unpack to; says what was not written. */
    static void sound(Dataset data) {
        if (data.getSize() == 0) {
            return;
        }
        long stored = data.getStorageInBytes();
        long claimed = data.getSizeInBytes();
        if (data instanceof ChunkedDataset c) {
            var chunks = new Chunks(c);
            claimed = chunks.unpacked();
            if (chunks.missing() > 0) {
                unwritten(data, chunks.missing() + " of the " + chunks.count() + " blocks of array");
            }
        } else if (data instanceof ContiguousDataset && data.isEmpty()) {
            claimed = 0;
            unwritten(data, "The numbers of array");
        } else if (data instanceof ContiguousDataset && data instanceof io.jhdf.AbstractNode node) {
            inOneRow(node, data.getName(), claimed);
        }
        if (claimed > 1032 * Math.max(64, stored)) {
            throw new FormatError(
                    "array \"" + data.getName() + "\" claims " + claimed + " bytes, but the file stores " + stored);
        }
    }

    /** Refuses an array in one row that is less than its numbers, or packed: what is read there belongs to something else. */
    private static void inOneRow(io.jhdf.AbstractNode node, String name, long needed) {
        var header = node.getHeader();
        var layout = header.getMessageOfType(io.jhdf.object.message.DataLayoutMessage.class);
        // Old versions of the message have no size.
        if (layout instanceof io.jhdf.object.message.DataLayoutMessage.ContiguousDataLayoutMessage row
                && row.getSize() >= 0
                && row.getSize() < needed) {
            throw new FormatError("array \"" + name + "\" needs " + needed + " bytes, but the file stores "
                    + row.getSize() + " for it");
        }
        if (header.hasMessageOfType(io.jhdf.object.message.FilterPipelineMessage.class)) {
            throw new FormatError(
                    "array \"" + name + "\" is packed, which is only possible in blocks, but stands in one row");
        }
    }

    private static void unwritten(Dataset data, String what) {
        NOTES.get()
                .add(what + " \"" + data.getName() + "\" were never written; they are taken as its fill value, "
                        + (data.getFillValue() == null ? "0" : data.getFillValue()) + ".");
    }

    /** Part of an array that is stored in blocks or not at all; null for one that stands in one row in the file. */
    private static @Nullable Object stored(Dataset data, long[] at, int[] size, int count) {
        ByteBuffer bytes;
        int wide = data.getDataType().getSize();
        if (data instanceof ChunkedDataset c) {
            bytes = new Chunks(c).read(at, size, fill(data, wide));
        } else if (data instanceof ContiguousDataset && data.isEmpty()) {
            byte[] fill = fill(data, wide);
            byte[] all = new byte[Math.multiplyExact(count, wide)];
            for (int i = 0; i < all.length; i++) {
                all[i] = fill[i % wide];
            }
            bytes = ByteBuffer.wrap(all);
        } else {
            return null;
        }
        return data.getDataType()
                .fillData(bytes, new int[] {count}, data.getHdfFile().getHdfBackingStorage());
    }

    /** The bytes of a number that was never written. */
    private static byte[] fill(Dataset data, int wide) {
        byte[] out = new byte[wide];
        if (data instanceof AbstractNode node && node.getHeader().hasMessageOfType(FillValueMessage.class)) {
            FillValueMessage fill = node.getHeader().getMessageOfType(FillValueMessage.class);
            if (fill.isFillValueDefined() && fill.getFillValue().remaining() == wide) {
                fill.getFillValue().get(out);
            }
        }
        return out;
    }

    private static Values values(Object data, String name) {
        return switch (data) {
            case double[] v -> new Values.Doubles(v);
            case float[] v -> new Values.Floats(v);
            case int[] v -> new Values.Ints(v);
            case long[] v -> longs(v);
            case short[] v -> {
                int[] out = new int[v.length];
                for (int i = 0; i < v.length; i++) {
                    out[i] = v[i];
                }
                yield new Values.Ints(out);
            }
            case byte[] v -> {
                int[] out = new int[v.length];
                for (int i = 0; i < v.length; i++) {
                    out[i] = v[i];
                }
                yield new Values.Ints(out);
            }
            case Number n -> new Values.Doubles(new double[] {n.doubleValue()});
            case java.math.BigInteger[] v -> {
                double[] out = new double[v.length];
                for (int i = 0; i < v.length; i++) {
                    out[i] = v[i].doubleValue();
                }
                yield new Values.Doubles(out);
            }
            case null, default -> throw new FormatError("array \"" + name + "\" holds no numbers");
        };
    }

    private static Values longs(long[] v) {
        int[] ints = new int[v.length];
        for (int i = 0; i < v.length; i++) {
            ints[i] = (int) v[i];
            if (ints[i] != v[i]) {
                double[] out = new double[v.length];
                for (int k = 0; k < v.length; k++) {
                    out[k] = v[k];
                }
                return new Values.Doubles(out);
            }
        }
        return new Values.Ints(ints);
    }

    static double[] doubles(Values values) {
        if (values instanceof Values.Doubles d) {
            return d.array();
        }
        double[] out = new double[values.length()];
        for (int i = 0; i < out.length; i++) {
            out[i] = values.get(i);
        }
        return out;
    }

    static int[] ints(Dataset data) {
        return ints(values(data), data);
    }

    /** @param data what they are of, to be named */
    static int[] ints(Values values, Dataset data) {
        if (values instanceof Values.Ints v) {
            return v.array();
        }
        int[] out = new int[values.length()];
        for (int i = 0; i < out.length; i++) {
            out[i] = (int) values.get(i);
            if (out[i] != values.get(i)) {
                throw new FormatError("array \"" + data.getName() + "\" must hold whole numbers below 2 147 483 648");
            }
        }
        return out;
    }

    /**
     * Some consecutive rows of an array whose first dimension counts them. Only these are read, where the file's layout lets
     * them be found.
     *
     * @param rows first row and number of rows
     * @param wide numbers a row
     */
    static Values rows(Dataset data, int from, int rows, int wide) {
        int[] dims = data.getDimensions();
        if (from < 0 || rows < 0 || (long) wide * (from + (long) rows) > data.getSize()) {
            throw new FormatError("array \"" + data.getName() + "\" has " + data.getSize() + " numbers, too few for "
                    + rows + " rows of " + wide + " from row " + from);
        }
        // A row or a column of numbers may stand for the whole; other shapes say how wide their rows are.
        if (rows > 1
                && dims.length > 1
                && dims[0] > 1
                && (long) dims[0] * wide != data.getSize()
                && dims[0] != data.getSize()) {
            throw new FormatError("array \"" + data.getName() + "\" has rows of " + data.getSize() / dims[0]
                    + " numbers where " + wide + " belong");
        }
        boolean part = dims.length > 0 && dims[0] > rows && (long) dims[0] * wide == data.getSize() && rows > 0;
        if (!part) {
            return slice(values(data), Math.multiplyExact(wide, from), Math.multiplyExact(wide, rows));
        }
        // What is claimed is checked against the file as a whole, as if all of it were read.
        sound(data);
        long[] at = new long[dims.length];
        int[] size = dims.clone();
        at[0] = from;
        size[0] = rows;
        BUDGET.get().take((long) rows * wide * 8);
        Object stored = stored(data, at, size, Math.multiplyExact(wide, rows));
        return values(
                stored == null ? flat(data.getData(at, size), Math.multiplyExact(wide, rows)) : stored, data.getName());
    }

    /** Numbers in nested arrays as one array. */
    private static Object flat(Object nested, int length) {
        if (!(nested instanceof Object[] rows)) {
            return nested;
        }
        Object first = rows;
        while (first instanceof Object[] o && o.length > 0) {
            first = o[0];
        }
        if (first == null || !first.getClass().isArray()) {
            throw new FormatError("an array of it has no numbers");
        }
        Object out = java.lang.reflect.Array.newInstance(first.getClass().getComponentType(), length);
        fill(rows, out, 0);
        return out;
    }

    private static int fill(Object from, Object out, int at) {
        if (from instanceof Object[] rows) {
            int next = at;
            for (Object row : rows) {
                next = fill(row, out, next);
            }
            return next;
        }
        int n = java.lang.reflect.Array.getLength(from);
        System.arraycopy(from, 0, out, at, n);
        return at + n;
    }

    /** Rows of an array that are read when they are asked for. */
    static Values later(FileStamp stamp, Dataset data, int from, int rows, int wide) {
        String path = data.getPath();
        int length = Math.multiplyExact(wide, rows);
        sound(data);
        return new Deferred(
                List.of(stamp, path, from, rows),
                length,
                () -> stamp.reading(
                        () -> read(stamp.file(), h -> rows((Dataset) h.getByPath(path), from, rows, wide))));
    }

    /** Some consecutive entries. */
    static Values slice(Values values, int from, int count) {
        int[] at = new int[count];
        java.util.Arrays.setAll(at, i -> from + i);
        return from == 0 && count == values.length() ? values : values.pick(1, at);
    }
}
