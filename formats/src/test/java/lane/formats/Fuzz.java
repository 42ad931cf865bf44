package lane.formats;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.fail;

import com.sun.management.ThreadMXBean;
import java.io.IOException;
import java.lang.management.ManagementFactory;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.function.Consumer;
import lane.base.LaneException;

/**
 * Feeds damaged files to a reader: whatever comes, it answers or gives one clear sentence, within two seconds, and
 * allocates no more than four times the file and a fixed allowance for the readers' own buffers. {@code -Dlane.fuzz=5000}
 * sets how many cases a format gets; a failure names the seed, so that it can be run again.
 */
final class Fuzz {
    private static final int CASES = Integer.getInteger("lane.fuzz", 250);
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
