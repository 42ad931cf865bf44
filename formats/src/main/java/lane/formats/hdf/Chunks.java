package lane.formats.hdf;

import io.jhdf.api.dataset.ChunkedDataset;
import io.jhdf.dataset.chunked.Chunk;
import io.jhdf.dataset.chunked.ChunkOffset;
import io.jhdf.dataset.chunked.ChunkedDatasetBase;
import io.jhdf.exceptions.HdfException;
import io.jhdf.filter.FilterManager;
import io.jhdf.filter.FilterPipeline;
import io.jhdf.object.message.FilterPipelineMessage;
import io.jhdf.object.message.FilterPipelineMessage.FilterInfo;
import java.lang.reflect.Method;
import java.nio.ByteBuffer;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import java.util.zip.DataFormatException;
import java.util.zip.Inflater;
import lane.base.Parallel;
import lane.formats.io.FormatError;
import org.jspecify.annotations.Nullable;

/**
 * The blocks that an HDF5 array is stored in. A block that was never written holds the array's fill value, as the format
 * says; a packed one must unpack to exactly the bytes of a block, so that a damaged one can neither fill the memory nor pass.
 */
final class Chunks {
    private static final int DEFLATE = 1;
    private static final int SHUFFLE = 2;
    private static final long MOST = 10_000_000;

    /** Says which blocks there are; the library knows it and keeps it to itself. */
    private static final Method LOOKUP = lookup();

    private final ChunkedDatasetBase data;
    private final Map<ChunkOffset, Chunk> written;
    private final int[] dims;
    private final int[] chunk;
    private final int wide;
    private final List<FilterInfo> filters;

    Chunks(ChunkedDataset data) {
        this.data = (ChunkedDatasetBase) data;
        dims = data.getDimensions();
        chunk = data.getChunkDimensions();
        wide = data.getDataType().getSize();
        if (chunk.length != dims.length || Arrays.stream(chunk).anyMatch(c -> c < 1) || wide < 1) {
            throw new FormatError("array \"" + data.getName() + "\" has blocks that do not fit its shape");
        }
        if (count() > MOST) {
            throw FormatError.tooLarge("array \"" + data.getName() + "\" is cut into " + count()
                    + " blocks, more than are read; write it again in larger ones");
        }
        written = written();
        filters = this.data.getHeader().hasMessageOfType(FilterPipelineMessage.class)
                ? this.data
                        .getHeader()
                        .getMessageOfType(FilterPipelineMessage.class)
                        .getFilters()
                : List.of();
        for (FilterInfo f : filters) {
            // It puts the first bytes of all numbers together: of numbers of another size it makes others.
            if (f.getId() == SHUFFLE && (f.getData().length != 1 || f.getData()[0] != wide)) {
                throw new FormatError("array \"" + this.data.getName() + "\" is shuffled by numbers of "
                        + Arrays.toString(f.getData()) + " bytes, but its numbers have " + wide);
            }
        }
        for (Chunk c : written.values()) {
            if (!inside(c)) {
                throw new FormatError("array \"" + data.getName() + "\" has a block at "
                        + Arrays.toString(c.getChunkOffset()) + ", where none belongs");
            }
            if (c.getFilterMask() != null && c.getFilterMask().length() > filters.size()) {
                throw new FormatError("array \"" + data.getName() + "\" has a block that leaves out filter "
                        + c.getFilterMask().length() + " of " + filters.size());
            }
        }
    }

    private static Method lookup() {
        try {
            Method m = ChunkedDatasetBase.class.getDeclaredMethod("getChunkLookup");
            m.setAccessible(true);
            return m;
        } catch (NoSuchMethodException e) {
            throw new IllegalStateException("this version of the HDF5 library does not say which blocks it has", e);
        }
    }

    @SuppressWarnings("unchecked")
    private Map<ChunkOffset, Chunk> written() {
        try {
            return (Map<ChunkOffset, Chunk>) LOOKUP.invoke(data);
        } catch (java.lang.reflect.InvocationTargetException e) {
            throw e.getCause() instanceof RuntimeException r ? r : new HdfException("its blocks cannot be found", e);
        } catch (IllegalAccessException e) {
            throw new IllegalStateException(e);
        }
    }

    /** Numbers in a block. */
    private long inOne() {
        long n = 1;
        for (int c : chunk) {
            n = Math.multiplyExact(n, (long) c);
        }
        return n;
    }

    /** How many blocks the array is made of. */
    long count() {
        long n = 1;
        for (int d = 0; d < dims.length; d++) {
            n = Math.multiplyExact(n, (dims[d] + (long) chunk[d] - 1) / chunk[d]);
        }
        return n;
    }

    /** How many of them were never written. */
    long missing() {
        return count()
                - written.values().stream().filter(c -> c.getAddress() >= 0).count();
    }

    private boolean inside(Chunk c) {
        long[] from = c.getChunkOffset();
        for (int d = 0; d < dims.length; d++) {
            if (from[d] < 0 || from[d] >= dims[d] || from[d] % chunk[d] != 0) {
                return false;
            }
        }
        return true;
    }

    /** Bytes that the written blocks unpack to. */
    long unpacked() {
        return Math.multiplyExact((count() - missing()) * wide, inOne());
    }

    /**
     * Part of the array, first dimension slowest.
     *
     * @param at first index and {@code size} count along each dimension
     * @param fill the bytes of one number that was never written
     */
    ByteBuffer read(long[] at, int[] size, byte[] fill) {
        long numbers = wide;
        for (int s : size) {
            numbers = Math.multiplyExact(numbers, (long) s);
        }
        byte[] out = new byte[Math.toIntExact(numbers)];
        List<long[]> blocks = new ArrayList<>();
        over(at, size, blocks::add);
        Parallel.forBlocks(blocks.size(), 1, (block, from, to) -> {
            for (int i = from; i < to; i++) {
                @Nullable Chunk c = written.get(new ChunkOffset(blocks.get(i)));
                boolean there = c != null && c.getAddress() >= 0;
                copy(c != null && there ? unpack(c) : fill, !there, blocks.get(i), at, size, out);
            }
        });
        return ByteBuffer.wrap(out);
    }

    /** The first indices of all blocks that a part of the array touches. */
    private void over(long[] at, int[] size, Consumer<long[]> each) {
        int n = dims.length;
        long[] first = new long[n];
        for (int d = 0; d < n; d++) {
            first[d] = at[d] / chunk[d] * chunk[d];
            if (size[d] == 0) {
                return;
            }
        }
        long[] now = first.clone();
        while (true) {
            each.accept(now.clone());
            int d = n - 1;
            while (d >= 0 && (now[d] += chunk[d]) >= at[d] + size[d]) {
                now[d] = first[d];
                d--;
            }
            if (d < 0) {
                return;
            }
        }
    }

    /** Copies what a block and the asked part share, or writes the fill value there. */
    private void copy(byte[] from, boolean fill, long[] block, long[] at, int[] size, byte[] to) {
        int n = dims.length;
        int[] begin = new int[n];
        int[] end = new int[n];
        for (int d = 0; d < n; d++) {
            begin[d] = (int) (Math.max(block[d], at[d]) - at[d]);
            end[d] = (int) (Math.min(block[d] + chunk[d], at[d] + size[d]) - at[d]);
        }
        int[] now = begin.clone();
        int run = (end[n - 1] - begin[n - 1]) * wide;
        while (true) {
            long target = 0;
            long source = 0;
            for (int d = 0; d < n; d++) {
                target = target * size[d] + now[d];
                source = source * chunk[d] + (now[d] + at[d] - block[d]);
            }
            if (fill) {
                for (int i = 0; i < run; i++) {
                    to[(int) (target * wide) + i] = from[i % wide];
                }
            } else {
                System.arraycopy(from, (int) (source * wide), to, (int) (target * wide), run);
            }
            int d = n - 2;
            while (d >= 0 && ++now[d] == end[d]) {
                now[d] = begin[d];
                d--;
            }
            if (d < 0) {
                return;
            }
        }
    }

    private byte[] unpack(Chunk c) {
        int whole = Math.toIntExact(Math.multiplyExact(inOne(), (long) wide));
        long[] from = c.getChunkOffset();
        int[] at = new int[from.length];
        Arrays.setAll(at, i -> Math.toIntExact(from[i]));
        ByteBuffer raw = data.getRawChunkBuffer(at);
        byte[] bytes = new byte[raw.remaining()];
        raw.get(bytes);
        // Last packed, first unpacked; a block can say that a filter was not worth it there.
        for (int i = filters.size() - 1; i >= 0; i--) {
            FilterInfo filter = filters.get(i);
            if (c.getFilterMask() == null || !c.getFilterMask().get(i)) {
                FilterPipeline one = FilterManager.getPipeline(List.of(filter));
                // What sums and shuffles add to a block is a few bytes.
                bytes = filter.getId() == DEFLATE ? inflate(bytes, whole + 64) : one.decode(bytes);
            }
        }
        if (bytes.length != whole) {
            throw new FormatError("array \"" + data.getName() + "\" has a block of " + bytes.length + " bytes where "
                    + whole + " belong");
        }
        return bytes;
    }

    private byte[] inflate(byte[] packed, int most) {
        var inflater = new Inflater();
        try {
            inflater.setInput(packed);
            byte[] out = new byte[most];
            int n = 0;
            while (!inflater.finished()) {
                int got = inflater.inflate(out, n, most - n);
                if (got == 0 && !inflater.finished()) {
                    throw new FormatError("array \"" + data.getName() + "\" has a zlib block that "
                            + (n == most ? "holds more than it declares" : "ends too early"));
                }
                n += got;
            }
            return Arrays.copyOf(out, n);
        } catch (DataFormatException e) {
            throw new FormatError("array \"" + data.getName() + "\" has a damaged zlib block");
        } finally {
            inflater.end();
        }
    }
}
