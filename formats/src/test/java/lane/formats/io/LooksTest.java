package lane.formats.io;

import static org.assertj.core.api.Assertions.assertThat;

import java.lang.foreign.MemorySegment;
import java.util.HashSet;
import java.util.Random;
import java.util.Set;
import net.jpountz.xxhash.XXHash64;
import net.jpountz.xxhash.XXHashFactory;
import org.junit.jupiter.api.Test;

class LooksTest {
    @Test
    void itIsThePublishedFunctionAtEveryLength() {
        XXHash64 known = XXHashFactory.safeInstance().hash64();
        var random = new Random(4);
        for (int n = 0; n < 200; n++) {
            byte[] bytes = new byte[n];
            random.nextBytes(bytes);
            assertThat(Looks.of(MemorySegment.ofArray(bytes))).as("%d bytes", n).isEqualTo(known.hash(bytes, 0, n, 0));
        }
    }

    @Test
    void everyBitCountsAndOrderDoes() {
        byte[] bytes = new byte[96];
        Set<Long> seen = new HashSet<>();
        seen.add(Looks.of(MemorySegment.ofArray(bytes)));
        for (int bit = 0; bit < 8 * bytes.length; bit++) {
            bytes[bit / 8] ^= (byte) (1 << bit % 8);
            seen.add(Looks.of(MemorySegment.ofArray(bytes)));
            bytes[bit / 8] ^= (byte) (1 << bit % 8);
        }
        assertThat(seen).hasSize(8 * bytes.length + 1);
    }
}
