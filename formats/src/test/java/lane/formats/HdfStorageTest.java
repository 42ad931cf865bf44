package lane.formats;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Objects;
import lane.base.LaneException;
import lane.base.Memo;
import lane.base.Work;
import lane.field.Field;
import lane.field.TimeSelector;
import lane.formats.grid.Dataset;
import lane.formats.grid.Opening;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** HDF5 as another library stores it: blocks that nobody wrote, packed and summed ones, links. See stored.py. */
class HdfStorageTest {
    @TempDir
    Path folder;

    private static Path stored() {
        return Path.of(Objects.requireNonNull(HdfStorageTest.class.getResource("/lane/formats/stored.vtkhdf"))
                .getPath());
    }

    private static void right(Dataset d) {
        assertThat(d.mesh().nodeCount()).isEqualTo(64);
        assertThat(d.mesh().xyz()[3 * 37]).isEqualTo(1);
        assertThat(d.mesh().xyz()[3 * 37 + 1]).isEqualTo(1);
        assertThat(d.mesh().xyz()[3 * 37 + 2]).isEqualTo(2);
        double[] humidity = new double[64];
        double[] draught = new double[192];
        Arrays.setAll(humidity, i -> i < 16 || i >= 32 && i < 48 ? i : -7.5);
        Arrays.setAll(draught, i -> i);
        assertThat(Both.values(d, "humidity")).containsExactly(humidity);
        assertThat(Both.values(d, "draught")).containsExactly(draught);
        assertThat(Both.values(d, "never")).hasSize(64).containsOnly(12);
        assertThat(Both.values(d, "reserved")).hasSize(64).containsOnly(3.25);
        assertThat(Both.values(d, "zero")).hasSize(64).containsOnly(0);
        assertThat(Both.values(d, "alias")).containsExactly(humidity);
        assertThat(Both.values(d, "near")).containsExactly(draught);
        assertThat(d.fields()).extracting(Field::name).doesNotContain("lost", "away", "ring", "gnir");
        assertThat(d.remarks())
                .contains(
                        "2 of the 4 blocks of array \"humidity\" were never written; they are taken as its fill value, -7.5.",
                        "13 of the 13 blocks of array \"never\" were never written; they are taken as its fill value, 12.",
                        "The numbers of array \"reserved\" were never written; they are taken as its fill value, 3.25.",
                        "Not read: \"lost\" is a link to \"/nowhere\", which the file does not have.",
                        "Not read: \"away\" is a link into another file, which is not followed.")
                .anyMatch(r -> r.startsWith("8 of the 8 blocks of array \"zero\""))
                .anyMatch(r -> r.startsWith("Not read: \"ring\" is a link that leads to links"));
    }

    @Test
    void unwrittenBlocksHoldTheFillValueAndLinksAreFollowed() {
        right(DatasetReader.read(stored(), Work.QUIET));
    }

    @Test
    void theSameHoldsForFieldsThatAreReadLater() {
        right(DatasetReader.open(stored(), TimeSelector.LAST, Opening.WHOLE, Work.QUIET));
        Dataset later = DatasetReader.open(stored(), TimeSelector.LAST, Opening.onDemand(Memo.NONE), Work.QUIET);
        right(later);
    }

    /** The header of draught, in blocks, is made one in one row at another array's place, as a splice of two headers does. */
    private Path inOneRow(long size, boolean packed) throws IOException {
        byte[] bytes = Files.readAllBytes(stored());
        String text = new String(bytes, StandardCharsets.ISO_8859_1);
        // Only draught has sums to check; its filters begin with the shuffle.
        int filters = text.lastIndexOf("shuffle", text.indexOf("fletcher32"));
        int layout = text.indexOf("\u0008\0\u0018\0\0\0\0\0\u0003\u0002", filters) + 8;
        assertThat(filters).isPositive();
        assertThat(layout).isGreaterThan(filters + 8);
        ByteBuffer.wrap(bytes)
                .order(ByteOrder.LITTLE_ENDIAN)
                .put(layout + 1, (byte) 1)
                .putLong(layout + 2, 0x4d8)
                .putLong(layout + 10, size);
        if (!packed) {
            // The message of the filters, whose head is 24 bytes before the first one's name, says nothing now.
            bytes[filters - 24] = 0;
        }
        return Files.write(folder.resolve("row" + size + packed + ".vtkhdf"), bytes);
    }

    @Test
    void anArrayInOneRowIsNotReadBeyondItsEndNorWhereItIsPacked() throws IOException {
        Path small = inOneRow(32, false);
        assertThatThrownBy(() -> DatasetReader.read(small, Work.QUIET))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("array \"draught\" needs 768 bytes, but the file stores 32 for it");
        Path packed = inOneRow(768, true);
        assertThatThrownBy(() -> DatasetReader.read(packed, Work.QUIET))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("array \"draught\" is packed");
    }

    @Test
    void aDamagedPackedBlockIsRefusedAndNotReadAsNumbers() throws IOException {
        byte[] bytes = Files.readAllBytes(stored());
        int refused = 0;
        for (int i = 0; i + 1 < bytes.length; i++) {
            // Where a zlib stream begins.
            if (bytes[i] != 0x78 || bytes[i + 1] != 0x5e && bytes[i + 1] != (byte) 0x9c) {
                continue;
            }
            byte[] damaged = bytes.clone();
            damaged[i + 12] ^= 0x10;
            Path file = folder.resolve("d" + i + ".vtkhdf");
            Files.write(file, damaged);
            // Some bits stand for nothing, such as those that fill the last byte.
            try {
                right(DatasetReader.read(file, Work.QUIET));
            } catch (LaneException e) {
                assertThat(e).hasMessageContaining("d" + i + ".vtkhdf");
                refused++;
            }
        }
        assertThat(refused).isGreaterThan(10);
    }

    /** The tree of blocks has no sum of its own: what cannot be right in it is refused. */
    @ParameterizedTest
    @CsvSource({"4, 29, leaves out filter 5 of", "8, 41, where none belongs", "8, 200, where none belongs"})
    void aBlockThatCannotBeThereIsRefused(int at, int value, String why) throws IOException {
        byte[] bytes = Files.readAllBytes(stored());
        // The entry of the block at 40, 0 of "draught": its size, its mask, its place.
        int entry = -1;
        for (int i = 0; i + 32 < bytes.length; i++) {
            var b = ByteBuffer.wrap(bytes, i, 32).order(ByteOrder.LITTLE_ENDIAN);
            int size = b.getInt();
            if (size > 30
                    && size < 60
                    && b.getInt() == 0
                    && b.getLong() == 40
                    && b.getLong() == 0
                    && b.getLong() == 0) {
                entry = i;
            }
        }
        bytes[entry + at] = (byte) value;
        Path file = Files.write(folder.resolve("tree.vtkhdf"), bytes);
        assertThatThrownBy(() -> DatasetReader.read(file, Work.QUIET))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("array \"draught\" has a block")
                .hasMessageContaining(why);
    }

    /** Coordinates in rows of another width would be read across the rows. */
    @Test
    void rowsOfAnotherWidthAreRefused() throws IOException {
        Path file = folder.resolve("rows.vtkhdf");
        try (var hdf = io.jhdf.HdfFile.write(file)) {
            var root = hdf.putGroup("VTKHDF");
            root.putAttribute("Type", "UnstructuredGrid");
            root.putDataset("NumberOfPoints", new long[] {4});
            root.putDataset("NumberOfCells", new long[] {1});
            root.putDataset("NumberOfConnectivityIds", new long[] {4});
            root.putDataset("Points", new double[][] {{0, 0, 0, 9}, {1, 0, 0, 9}, {0, 1, 0, 9}, {0, 0, 1, 9}});
            root.putDataset("Connectivity", new long[] {0, 1, 2, 3});
            root.putDataset("Offsets", new long[] {0, 4});
            root.putDataset("Types", new byte[] {10});
        }
        assertThatThrownBy(() -> DatasetReader.read(file, Work.QUIET))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("array \"Points\" has rows of 4 numbers where 3 belong");
    }

    @Test
    void aShuffleOfNumbersOfAnotherSizeIsRefused() throws IOException {
        byte[] bytes = Files.readAllBytes(stored());
        int at = new String(bytes, java.nio.charset.StandardCharsets.ISO_8859_1).indexOf("shuffle\0");
        // Behind the filter's name stands the size of a number.
        assertThat(bytes[at + 8]).isEqualTo((byte) 8);
        bytes[at + 9] = 1;
        Path file = Files.write(folder.resolve("shuffle.vtkhdf"), bytes);
        assertThatThrownBy(() -> DatasetReader.read(file, Work.QUIET))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("is shuffled by numbers of [264] bytes, but its numbers have 8");
    }

    /** A link that leads nowhere, or to what is no array, is told. */
    @ParameterizedTest
    @CsvSource({"0, is a link that leads nowhere", "1, is no array"})
    void aLinkToNoArrayIsTold(int length, String why) throws IOException {
        byte[] bytes = Files.readAllBytes(stored());
        int at = new String(bytes, java.nio.charset.StandardCharsets.ISO_8859_1).indexOf("near\7\0draught");
        bytes[at + 4] = (byte) length;
        // A single point is the group itself.
        bytes[at + 6] = length == 0 ? 0 : (byte) '.';
        Path file = Files.write(folder.resolve("link.vtkhdf"), bytes);
        Dataset read = DatasetReader.read(file, Work.QUIET);
        assertThat(read.remarks())
                .anySatisfy(r -> assertThat(r).contains("\"near\"").contains(why));
    }
}
