package lane.formats;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.fail;

import com.sun.management.ThreadMXBean;
import java.io.IOException;
import java.lang.management.ManagementFactory;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import java.util.function.Consumer;
import java.util.function.Function;
import lane.base.LaneException;
import lane.field.Field;
import lane.formats.grid.Dataset;

/**
 * Feeds damaged files to a reader: whatever comes, it answers or gives one clear sentence, and allocates no more than four
 * times the file and a fixed allowance for the readers' own buffers. What it answers without a word is what stood in the
 * sound file, but for the numbers whose own bytes were damaged. {@code -Dlane.fuzz=5000} sets how many cases a format gets;
 * a failure names the case, so that it can be run again.
 */
final class Fuzz {
    private static final int CASES = Integer.getInteger("lane.fuzz", 1000);
    private static final long BUFFERS = 12L << 20;
    private static final ThreadMXBean THREADS = (ThreadMXBean) ManagementFactory.getThreadMXBean();

    private Fuzz() {}

    /** @param seeds sound files of the format, which are damaged in turn */
    static void run(Path folder, String ending, List<byte[]> seeds, Consumer<Path> reader) throws IOException {
        for (byte[] seed : seeds) {
            Path sound = folder.resolve("sound" + ending);
            Files.write(sound, seed);
            reader.accept(sound);
        }
        int refused = 0;
        for (int i = 0; i < CASES; i++) {
            byte[] bytes = damaged(seeds.get(i % seeds.size()), seeds, new Random(1000 + i));
            refused += one(folder.resolve("damaged" + ending), bytes, "case " + i, reader) ? 1 : 0;
        }
        // Damage that nobody notices would mean that nothing is checked.
        assertThat(refused).as("files refused of " + CASES).isGreaterThan(CASES / 20);
    }

    /** The same with a look at what is read from files that are not refused. */
    static void same(Path folder, String ending, List<byte[]> seeds, Function<Path, Dataset> reader)
            throws IOException {
        same(folder, ending, seeds, true, reader);
    }

    /** @param explicit whether each node says where it lies; otherwise a few numbers place them all */
    static void same(Path folder, String ending, List<byte[]> seeds, boolean explicit, Function<Path, Dataset> reader)
            throws IOException {
        Path file = folder.resolve("sound" + ending);
        List<Read> sound = new ArrayList<>();
        for (byte[] seed : seeds) {
            Files.write(file, seed);
            sound.add(Read.of(reader.apply(file), explicit));
        }
        int refused = 0;
        for (int i = 0; i < CASES; i++) {
            byte[] seed = seeds.get(i % seeds.size());
            Read was = sound.get(i % seeds.size());
            byte[] bytes = damaged(seed, seeds, new Random(1000 + i));
            refused += one(folder.resolve("damaged" + ending), bytes, "case " + i, f -> {
                        Read is = Read.of(reader.apply(f), explicit);
                        assertThat(was.unsaid(is, touched(seed, bytes), CUTTABLE.contains(ending)))
                                .isNull();
                    })
                    ? 1
                    : 0;
        }
        assertThat(refused).as("files refused of " + CASES).isBetween(CASES / 20, CASES - 1);
    }

    /** So many bytes are more than a number or a name. */
    private static final int CUT = 8;

    /** Formats of which each entry stands for itself. */
    private static final java.util.Set<String> CUTTABLE = java.util.Set.of(".vtm", ".ply", ".pvtu");

    /** How many bytes lie between the parts that two files have alike at their begin and end. */
    private static int touched(byte[] a, byte[] b) {
        int n = Math.min(a.length, b.length);
        int begin = 0;
        while (begin < n && a[begin] == b[begin]) {
            begin++;
        }
        int end = 0;
        while (end < n - begin && a[a.length - 1 - end] == b[b.length - 1 - end]) {
            end++;
        }
        return Math.max(a.length, b.length) - begin - end;
    }

    /** All numbers of a dataset, by what they are. */
    private record Read(Map<String, double[]> numbers, List<String> remarks) {
        static Read of(Dataset d, boolean explicit) {
            Map<String, double[]> all = new TreeMap<>();
            // Where a few numbers make the whole mesh, one of them changes all of it.
            all.put("coordinates", explicit ? d.mesh().xyz() : new double[0]);
            all.put(
                    "cells",
                    explicit ? Arrays.stream(d.mesh().nodes()).asDoubleStream().toArray() : new double[0]);
            for (Field f : d.fields()) {
                double[] v = new double[f.values().length()];
                Arrays.setAll(v, f.values()::get);
                all.put(f.name() + " at " + f.at().word(), v);
            }
            return new Read(all, d.remarks());
        }

        /** What the other has changed without saying so, more than the touched bytes can account for; null for nothing. */
        String unsaid(Read other, int touched, boolean cuts) {
            if (!remarks.containsAll(other.remarks)) {
                return null;
            }
            for (var e : numbers.entrySet()) {
                double[] was = e.getValue();
                double[] is = other.numbers.get(e.getKey());
                if (is == null) {
                    // A damaged name is a name too, and what is cut out with its name was never there; but nothing else
                    // goes.
                    if (other.numbers.size() < numbers.size()
                            && touched < e.getKey().length() + 8) {
                        return e.getKey() + " is gone without a word";
                    }
                    continue;
                }
                if (is.length < was.length && touched >= CUT && cuts) {
                    // Where each entry stands for itself, one that is cut out whole leaves a sound file.
                    continue;
                }
                if (is.length != was.length) {
                    return e.getKey() + " has " + is.length + " numbers in place of " + was.length;
                }
                int differ = 0;
                for (int i = 0; i < was.length; i++) {
                    differ += Double.compare(was[i], is[i]) == 0 ? 0 : 1;
                }
                // One in some millions of damaged streams keeps its check sum with its values changed places: nobody
                // can see it.
                // A character of base64 has bits of two bytes, which may be of two numbers.
                if (differ > touched + 1 && !sameSum(was, is)) {
                    return differ + " numbers of " + e.getKey() + " changed by " + touched + " bytes";
                }
            }
            return null;
        }
    }

    private static boolean sameSum(double[] a, double[] b) {
        return sum(a, java.nio.ByteOrder.BIG_ENDIAN) == sum(b, java.nio.ByteOrder.BIG_ENDIAN)
                || sum(a, java.nio.ByteOrder.LITTLE_ENDIAN) == sum(b, java.nio.ByteOrder.LITTLE_ENDIAN);
    }

    private static long sum(double[] values, java.nio.ByteOrder order) {
        var bytes = java.nio.ByteBuffer.allocate(8 * values.length).order(order);
        bytes.asDoubleBuffer().put(values);
        var sum = new java.util.zip.Adler32();
        sum.update(bytes.array());
        return sum.getValue();
    }

    /** @return whether the file was refused */
    static boolean one(Path file, byte[] bytes, String name, Consumer<Path> reader) throws IOException {
        Files.write(file, bytes);
        long thread = Thread.currentThread().threadId();
        long allocated = THREADS.getThreadAllocatedBytes(thread);
        boolean refused = false;
        try {
            reader.accept(file);
        } catch (LaneException e) {
            refused = true;
            assertThat(e.getMessage()).as(name).isNotBlank().hasSizeLessThan(700);
            assertThat(e.getMessage().strip().lines().count()).as(name).isEqualTo(1);
        } catch (Throwable t) {
            Path kept = Files.write(Path.of(System.getProperty("java.io.tmpdir"), "fuzz-" + file.getFileName()), bytes);
            fail(name + " of " + bytes.length + " bytes, kept as " + kept + ", made the reader fail", t);
        }
        long used = THREADS.getThreadAllocatedBytes(thread) - allocated;
        assertThat(used)
                .as(name + ": bytes allocated for a file of " + bytes.length)
                .isLessThan(4L * bytes.length + BUFFERS);
        return refused;
    }

    static byte[] damaged(byte[] seed, List<byte[]> others, Random random) {
        byte[] out = seed.clone();
        for (int k = 1 + random.nextInt(3); k > 0; k--) {
            out = damage(out, others, random);
        }
        return out;
    }

    private static byte[] damage(byte[] in, List<byte[]> others, Random random) {
        if (in.length < 4) {
            return in;
        }
        byte[] out = in.clone();
        int at = random.nextInt(in.length);
        switch (random.nextInt(8)) {
            case 0 -> out = Arrays.copyOf(out, at);
            case 1 -> out[at] = (byte) random.nextInt();
            case 2 -> {
                // Digits of a header become other digits.
                for (int i = at; i < Math.min(out.length, at + 2000); i++) {
                    if (out[i] >= '0' && out[i] <= '9') {
                        out[i] = (byte) (random.nextInt(4) == 0 ? '-' : '0' + random.nextInt(10));
                        if (random.nextBoolean()) {
                            break;
                        }
                    }
                }
            }
            case 3 -> {
                // Extreme numbers where binary sizes may stand.
                byte fill = (byte) new int[] {0xff, 0x7f, 0x80, 0}[random.nextInt(4)];
                for (int i = at; i < Math.min(out.length, at + 1 + random.nextInt(8)); i++) {
                    out[i] = fill;
                }
            }
            case 4 -> {
                byte[] other = others.get(random.nextInt(others.size()));
                int from = random.nextInt(other.length);
                int n = Math.min(random.nextInt(200) + 1, Math.min(other.length - from, out.length - at));
                System.arraycopy(other, from, out, at, n);
            }
            case 5 -> out = without(out, at, Math.min(out.length, at + 1 + random.nextInt(60)));
            case 6 -> {
                // More digits: a count that claims far more than there is.
                int i = at;
                while (i < out.length && !(out[i] >= '1' && out[i] <= '9')) {
                    i++;
                }
                byte[] more = "9999999"
                        .substring(0, 1 + random.nextInt(7))
                        .getBytes(java.nio.charset.StandardCharsets.US_ASCII);
                byte[] longer = Arrays.copyOf(out, out.length + more.length);
                System.arraycopy(more, 0, longer, Math.min(i, out.length), more.length);
                System.arraycopy(
                        out,
                        Math.min(i, out.length),
                        longer,
                        Math.min(i, out.length) + more.length,
                        out.length - Math.min(i, out.length));
                out = longer;
            }
            default -> {
                int to = Math.min(out.length, at + 1 + random.nextInt(100));
                byte[] twice = Arrays.copyOf(out, out.length + to - at);
                System.arraycopy(out, at, twice, to, out.length - at);
                out = twice;
            }
        }
        return out;
    }

    private static byte[] without(byte[] in, int from, int to) {
        byte[] out = Arrays.copyOf(in, in.length - (to - from));
        System.arraycopy(in, to, out, from, in.length - to);
        return out;
    }
}
