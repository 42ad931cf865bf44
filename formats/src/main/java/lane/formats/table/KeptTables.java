package lane.formats.table;

import com.fasterxml.jackson.databind.json.JsonMapper;
import java.io.IOException;
import java.lang.foreign.Arena;
import java.lang.foreign.MemorySegment;
import java.lang.foreign.ValueLayout;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicBoolean;
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

/**
 * Long tables as they were read before, in the user's folder for the state of programs: opened again, their numbers are there at
 * once. They hold for the same program, the same recipe, and as long as the file looks as it did. What is damaged, or was made
 * by another release, is passed over; what nobody looked at for two months goes, and what is too much, the oldest first.
 */
public final class KeptTables {
    /** Those of the user. */
    public static final KeptTables USER =
            new KeptTables(() -> UserFolders.state().resolve("tables"), 1L << 25, 4L << 30);

    /** Where each is read anew. */
    public static final KeptTables NONE = new KeptTables(() -> Path.of(""), Long.MAX_VALUE, 0);

    private static final JsonMapper MAPPER = new JsonMapper();
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

    /**
     * @param least bytes of files whose tables are kept
     * @param most bytes that they may take together
     */
    KeptTables(Supplier<Path> folder, long least, long most) {
        this.folder = folder;
        this.least = least;
        this.most = most;
    }

    /**
     * A table, as it was read before or as it is read now, which is then kept behind whoever asked.
     *
     * @param stamp how the file looks now
     * @param shown the path as the trail names it
     */
    public Table of(FileStamp stamp, String shown, Recipe recipe) {
        if (stamp.size() < least) {
            return TableReader.read(stamp.file(), shown, recipe);
        }
        Path there = folder.get().resolve(name(stamp, recipe) + END);
        return kept(there, shown).orElseGet(() -> {
            boolean settled = settled(stamp);
            Table made = TableReader.read(stamp.file(), shown, recipe);
            if (settled && !stamp.differs()) {
                Thread.ofPlatform().daemon().name("keep table").start(() -> keep(there, made));
            }
            return made;
        });
    }

    /** What tables of its kind have in common, as {@link TableReader#kinds} finds it. */
    public List<String> kinds(FileStamp stamp, String shown) {
        if (stamp.size() < least) {
            return TableReader.kinds(stamp.file(), shown);
        }
        Path there = folder.get().resolve(name(stamp, "kinds") + KINDS);
        try {
            return List.of(MAPPER.readValue(Files.readString(there), String[].class));
        } catch (IOException | RuntimeException e) {
            boolean settled = settled(stamp);
            List<String> made = TableReader.kinds(stamp.file(), shown);
            if (settled && !stamp.differs()) {
                try {
                    Files.createDirectories(Objects.requireNonNull(there.getParent()));
                    byte[] text = MAPPER.writeValueAsBytes(made);
                    AtomicFile.write(there, out -> out.write(text));
                } catch (LaneException | IOException none) {
                    // It is a convenience.
                }
            }
            return made;
        }
    }

    private static String name(FileStamp stamp, Object read) {
        return FileHash.ofText(stamp + "\n" + read + "\n" + Program.ID).substring(0, 40);
    }

    /** Whether a change from now on shows in the stamp: asked before the file is read, which may take longer than that. */
    private static boolean settled(FileStamp stamp) {
        Instant changed = Instant.EPOCH.plusNanos(stamp.changed());
        return changed.plus(SETTLED).isBefore(Instant.now());
    }

    private static Optional<Table> kept(Path there, String shown) {
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
                if (sum(all.asSlice(begin + c * each, each).asByteBuffer()) != head.sums.get(c)) {
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
                    new Columns(head.rows, head.ends, c -> all.asSlice(begin + c * each, each)
                            .toArray(DOUBLE)),
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
            tidy(own, most - size);
            byte[] text = MAPPER.writeValueAsBytes(head);
            AtomicFile.write(there, out -> {
                var some = ByteBuffer.allocate(1 << 16).order(ByteOrder.LITTLE_ENDIAN);
                some.putInt(text.length).putLong(sum(ByteBuffer.wrap(text)));
                out.write(some.array(), 0, BEFORE);
                out.write(text);
                for (double[] column : table.columns()) {
                    some.clear();
                    for (double v : column) {
                        if (some.remaining() < Double.BYTES) {
                            out.write(some.array(), 0, some.position());
                            some.clear();
                        }
                        some.putDouble(v);
                    }
                    out.write(some.array(), 0, some.position());
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
        var some = ByteBuffer.allocate(1 << 16).order(ByteOrder.LITTLE_ENDIAN);
        var sum = new CRC32C();
        for (double v : column) {
            if (some.remaining() < Double.BYTES) {
                sum.update(some.flip());
                some.clear();
            }
            some.putDouble(v);
        }
        sum.update(some.flip());
        return sum.getValue();
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
