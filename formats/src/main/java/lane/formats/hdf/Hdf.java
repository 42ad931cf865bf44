package lane.formats.hdf;

import io.jhdf.HdfFile;
import io.jhdf.api.Attribute;
import io.jhdf.api.Dataset;
import io.jhdf.api.Group;
import io.jhdf.api.Node;
import io.jhdf.exceptions.HdfException;
import io.jhdf.links.ExternalLink;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
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

    private Hdf() {}

    static <T> T read(Path file, Function<HdfFile, T> reader) {
        return FileErrors.of(file, () -> {
            if (!Files.isReadable(file)) {
                throw new lane.base.LaneException(
                        "The file " + file + " cannot be read: it is not there or is closed to you.");
            }
            BUDGET.set(new Budget(file.toFile().length()));
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

    /** A child, or null. A link into another file is not followed. */
    static @Nullable Node child(Group group, String name) {
        Node found = group.getChildren().get(name);
        if (found instanceof ExternalLink) {
            throw FormatError.unsupported("\"" + name + "\" is a link into another file, which is not followed");
        }
        return found;
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
        return values(data.getSize() == 0 ? new double[0] : data.getDataFlat(), data.getName());
    }

    private static void sound(Dataset data) {
        long stored = data.getStorageInBytes();
        if (data.getSizeInBytes() > 1032 * Math.max(64, stored)) {
            throw new FormatError("array \"" + data.getName() + "\" claims " + data.getSizeInBytes()
                    + " bytes, but the file stores " + stored);
        }
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
        return values(flat(data.getData(at, size), Math.multiplyExact(wide, rows)), data.getName());
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
