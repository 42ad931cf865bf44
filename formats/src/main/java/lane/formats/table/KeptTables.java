package lane.formats.table;

import com.fasterxml.jackson.databind.json.JsonMapper;
import java.io.IOException;
import java.lang.foreign.Arena;
import java.lang.foreign.MemorySegment;
import java.lang.foreign.ValueLayout;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.Channels;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Queue;
import java.util.Set;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Predicate;
import java.util.function.Supplier;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import java.util.zip.CRC32C;
import lane.base.LaneException;
import lane.base.Parallel;
import lane.formats.io.AtomicFile;
import lane.formats.io.FileHash;
import lane.formats.io.FileStamp;
import lane.formats.io.ProgramId;
import lane.formats.io.UserFolders;
import lane.provenance.Provenance;
import lane.reading.Samples;
import lane.reference.Columns;
import lane.reference.Recipe;
import lane.reference.Table;
import org.jspecify.annotations.Nullable;

/**
 * Long tables as they were read before, in the user's folder for the state of programs: opened again, their numbers are there at
 * once. They hold for the same program, the same recipe, and as long as the file looks as it did. What is damaged, or was made
 * by another release, is passed over; what nobody looked at for two months goes, and what is too much, the oldest first.
 */
public final class KeptTables {
    /** Those of the user; what is long may be less in tests. */
    public static final KeptTables USER = new KeptTables(
            () -> UserFolders.state().resolve("tables"), Long.getLong("lane.tables.least", 1L << 25), 4L << 30);

    /** Where each is read anew. */
    public static final KeptTables NONE = new KeptTables(() -> Path.of(""), Long.MAX_VALUE, 0);

    private static final AlikeColumns ALIKE = new AlikeColumns();

    private static final JsonMapper MAPPER = new JsonMapper();
    /** Numbers that are written at once. */
    private static final int SOME = 1 << 13;

    private static final Duration UNUSED = Duration.ofDays(60);
    /** A file may change twice within this and look the same. */
    private static final Duration SETTLED = Duration.ofSeconds(2);

    private static final String END = ".table";
    private static final String KINDS = ".kinds";
    private static final ValueLayout.OfDouble DOUBLE =
            ValueLayout.JAVA_DOUBLE_UNALIGNED.withOrder(ByteOrder.LITTLE_ENDIAN);
    private static final ValueLayout.OfInt INT = ValueLayout.JAVA_INT_UNALIGNED.withOrder(ByteOrder.LITTLE_ENDIAN);

    private static final ValueLayout.OfLong LONG = ValueLayout.JAVA_LONG_UNALIGNED.withOrder(ByteOrder.LITTLE_ENDIAN);
    /** What stands before the head: its length and its checksum. */
    private static final int BEFORE = Integer.BYTES + Long.BYTES;

    /** All but the numbers, with a checksum of those of each column. */
    private record Head(
            List<String> headers,
            List<String> units,
            List<Recipe.Role> roles,
            Table.Layout layout,
            Table.Found found,
            String sha256,
            long bytes,
            int rows,
            List<Long> sums,
            List<Samples.Ends> ends) {}

    private static final class Program {
        static final String ID = ProgramId.of(KeptTables.class) + ProgramId.of(Table.class);
    }

    private final Supplier<Path> folder;
    private final long least;
    private final long most;
    /** What is going to be kept; the first is being kept. */
    private final Queue<Runnable> waiting = new ArrayDeque<>();
    /** Bytes that can be kept without looking which ones must go. */
    private long room = -1;
    /** How many are being read. */
    private final AtomicInteger reading = new AtomicInteger();

    /**
     * @param least bytes of files whose tables are kept
     * @param most bytes that they may take together
     */
    KeptTables(Supplier<Path> folder, long least, long most) {
        this.folder = folder;
        this.least = least;
        this.most = most;
    }

    /** Whether tables of so many bytes together are kept. */
    public boolean worth(long bytes) {
        return bytes >= least;
    }

    /** Whether a table that stands here may be one that was read before. */
    public boolean has(FileStamp stamp, List<Recipe> recipes) {
        return most > 0 && Files.exists(recipes.isEmpty() ? table(stamp, Recipe.of("")) : kinds(stamp));
    }

    /**
     * A table, as it was read before or as it is read now, which is then kept behind whoever asked.
     *
     * @param stamp how the file looks now
     * @param shown the path as the trail names it
     * @param recipes of which the first that holds for it says how it is read
     * @param many whether it is kept although it is small, since it is one of many
     * @param ahead the SHA-256 of its bytes where somebody found it; asked for when it is read
     */
    public TableReader.Read of(
            FileStamp stamp, String shown, List<Recipe> recipes, boolean many, Supplier<Optional<String>> ahead) {
        if (most == 0 || !many && stamp.size() < least) {
            return TableReader.read(stamp.file(), shown, recipes, ahead);
        }
        return kept(stamp, shown, recipes, c -> true).orElseGet(() -> {
            boolean settled = settled(stamp);
            TableReader.Read made;
            reading.incrementAndGet();
            try {
                made = TableReader.read(stamp.file(), shown, recipes, ahead);
            } finally {
                reading.decrementAndGet();
            }
            if (settled && !stamp.differs()) {
                later(() -> keep(stamp, made, !recipes.isEmpty()));
            }
            return made;
        });
    }

    /**
     * Some columns of a table that was read before, without a look at the others; a column that was not asked for must not be
     * looked at. Empty where it was not, or is damaged.
     */
    public Optional<Table> some(FileStamp stamp, String shown, List<Recipe> recipes, Set<String> columns) {
        return has(stamp, recipes)
                ? kept(stamp, shown, recipes, columns::contains).map(TableReader.Read::table)
                : Optional.empty();
    }

    /** @param columns that are looked at whether they are as they were written */
    private Optional<TableReader.Read> kept(
            FileStamp stamp, String shown, List<Recipe> recipes, Predicate<String> columns) {
        try {
            // Without recipes nobody asks of what kind it is.
            List<String> kinds = recipes.isEmpty()
                    ? List.of()
                    : List.of(MAPPER.readValue(Files.readString(kinds(stamp)), String[].class));
            Recipe recipe = TableReader.recipe(recipes, stamp.file(), kinds);
            return kept(table(stamp, recipe), shown, columns).map(t -> new TableReader.Read(kinds, recipe, t));
        } catch (IOException | RuntimeException e) {
            return Optional.empty();
        }
    }

    private Path table(FileStamp stamp, Recipe recipe) {
        return folder.get().resolve(name(stamp, recipe) + END);
    }

    private Path kinds(FileStamp stamp) {
        return folder.get().resolve(name(stamp, "kinds") + KINDS);
    }

    private void keep(FileStamp stamp, TableReader.Read made, boolean kinds) {
        keep(table(stamp, made.recipe()), made.table());
        if (kinds) {
            try {
                byte[] text = MAPPER.writeValueAsBytes(made.kinds());
                AtomicFile.write(kinds(stamp), out -> out.write(text));
            } catch (LaneException | IOException e) {
                // It is a convenience.
            }
        }
    }

    /** Keeps what waits for it, one after the other, on a thread that ends when there is no more. */
    private synchronized void later(Runnable keep) {
        waiting.add(keep);
        if (waiting.size() == 1) {
            Thread.ofPlatform().daemon().name("keep table").start(() -> {
                for (Runnable next = first(); next != null; next = after()) {
                    letRead();
                    next.run();
                }
            });
        }
    }

    /** Whoever waits for numbers goes first, for a minute at most. */
    private void letRead() {
        for (int i = 0; i < 600 && reading.get() > 0; i++) {
            try {
                Thread.sleep(100);
            } catch (InterruptedException e) {
                return;
            }
        }
    }

    private synchronized @Nullable Runnable first() {
        return waiting.peek();
    }

    private synchronized @Nullable Runnable after() {
        waiting.remove();
        if (waiting.isEmpty()) {
            // Others may fill the folder meanwhile.
            room = -1;
        }
        return waiting.peek();
    }

    private static String name(FileStamp stamp, Object read) {
        return FileHash.ofText(stamp + "\n" + read + "\n" + Program.ID).substring(0, 40);
    }

    /** Whether a change from now on shows in the stamp: asked before the file is read, which may take longer than that. */
    private static boolean settled(FileStamp stamp) {
        Instant changed = Instant.EPOCH.plusNanos(stamp.changed());
        return changed.plus(SETTLED).isBefore(Instant.now());
    }

    private static Optional<Table> kept(Path there, String shown, Predicate<String> wanted) {
        try (FileChannel in = FileChannel.open(there)) {
            // It stays as long as somebody holds the table, of whose columns most are never looked at.
            MemorySegment all = in.map(FileChannel.MapMode.READ_ONLY, 0, in.size(), Arena.ofAuto());
            int length = all.get(INT, 0);
            byte[] text = all.asSlice(BEFORE, length).toArray(ValueLayout.JAVA_BYTE);
            if (sum(ByteBuffer.wrap(text)) != all.get(LONG, INT.byteSize())) {
                return Optional.empty();
            }
            Head head = MAPPER.readValue(text, Head.class);
            int columns = head.headers.size();
            long begin = (long) BEFORE + length;
            long each = DOUBLE.byteSize() * head.rows;
            if (all.byteSize() != begin + each * columns) {
                return Optional.empty();
            }
            var other = new AtomicBoolean();
            Parallel.forBlocks(columns, 1, (b, c, end) -> {
                if (wanted.test(head.headers.get(c))
                        && sum(all.asSlice(begin + c * each, each).asByteBuffer()) != head.sums.get(c)) {
                    other.set(true);
                }
            });
            if (other.get()) {
                return Optional.empty();
            }
            Files.setLastModifiedTime(there, FileTime.from(Instant.now()));
            return Optional.of(new Table(
                    head.headers,
                    head.units,
                    head.roles,
                    new Columns(
                            head.rows,
                            head.ends,
                            c -> ALIKE.of(head.rows, head.sums.get(c), all.asSlice(begin + c * each, each), DOUBLE)),
                    head.layout,
                    head.found,
                    new Provenance.Input(shown, head.sha256, head.bytes)));
        } catch (IOException | RuntimeException e) {
            // It is not there, or not what was written: the file itself is read.
            return Optional.empty();
        }
    }

    void keep(Path there, Table table) {
        List<Long> sums = table.columns().stream().map(KeptTables::sum).toList();
        var head = new Head(
                table.headers(),
                table.units(),
                table.roles(),
                table.layout(),
                table.found(),
                table.input().sha256(),
                table.input().bytes(),
                table.rows(),
                sums,
                IntStream.range(0, table.columns().size()).mapToObj(table::ends).toList());
        long size = (long) table.columns().size() * table.rows() * DOUBLE.byteSize();
        try {
            Path own = Objects.requireNonNull(there.getParent());
            Files.createDirectories(own);
            if (size > most || size > Files.getFileStore(own).getUsableSpace() / 4) {
                return;
            }
            if (size > room) {
                // A little more than it takes, so that many small ones do not look through all of them each.
                long more = Math.min(most, size + most / 16);
                tidy(own, most - more);
                room = more;
            }
            room -= size;
            byte[] text = MAPPER.writeValueAsBytes(head);
            AtomicFile.write(there, out -> {
                var before = ByteBuffer.allocate(BEFORE).order(ByteOrder.LITTLE_ENDIAN);
                before.putInt(text.length).putLong(sum(ByteBuffer.wrap(text)));
                out.write(before.array());
                out.write(text);
                var numbers = Channels.newChannel(out);
                for (double[] column : table.columns()) {
                    bytes(column, numbers::write);
                }
            });
        } catch (LaneException | IOException e) {
            // It is a convenience: without it the table is read again.
        }
    }

    /** A checksum that processors have instructions for: a program that just began does not find others quickly. */
    private static long sum(ByteBuffer bytes) {
        var sum = new CRC32C();
        sum.update(bytes);
        return sum.getValue();
    }

    private static long sum(double[] column) {
        var sum = new CRC32C();
        try {
            bytes(column, sum::update);
        } catch (IOException e) {
            throw new IllegalStateException("nothing is written", e);
        }
        return sum.getValue();
    }

    @FunctionalInterface
    private interface Taking {
        void take(ByteBuffer some) throws IOException;
    }

    /** The bytes of a column as they are kept, some at once. */
    private static void bytes(double[] column, Taking by) throws IOException {
        var some = ByteBuffer.allocate(Double.BYTES * SOME).order(ByteOrder.LITTLE_ENDIAN);
        for (int at = 0; at < column.length; at += SOME) {
            int n = Math.min(SOME, column.length - at);
            some.clear().asDoubleBuffer().put(column, at, n);
            by.take(some.limit(Double.BYTES * n));
        }
    }

    /** Lets go of what nobody looked at for long, and of the oldest until all together take no more than that. */
    private static void tidy(Path folder, long room) throws IOException {
        record One(Path file, long size, Instant used) {}
        List<One> all = new ArrayList<>();
        try (Stream<Path> files = Files.list(folder)) {
            for (Path p : (Iterable<Path>)
                    files.filter(f -> f.toString().endsWith(END) || f.toString().endsWith(KINDS))::iterator) {
                all.add(new One(p, Files.size(p), Files.getLastModifiedTime(p).toInstant()));
            }
        }
        all.sort(Comparator.comparing(One::used).reversed());
        long sum = 0;
        for (One one : all) {
            sum += one.size;
            if (sum > room || one.used.plus(UNUSED).isBefore(Instant.now())) {
                Files.deleteIfExists(one.file);
            }
        }
    }
}
