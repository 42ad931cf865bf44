package lane.formats.vtk;

import java.nio.ByteBuffer;
import java.util.Arrays;
import java.util.Objects;
import lane.field.Values;
import lane.formats.io.Decimal;
import lane.formats.io.FormatError;
import org.jspecify.annotations.Nullable;

/**
 * A growing array of numbers of one stored type. It grows with what has really been decoded, never with what a file
 * only claims.
 */
final class Numbers {
    /** Number types of the format. */
    enum Type {
        INT8(1),
        UINT8(1),
        INT16(2),
        UINT16(2),
        INT32(4),
        UINT32(4),
        INT64(8),
        UINT64(8),
        FLOAT32(4),
        FLOAT64(8);

        final int bytes;

        Type(int bytes) {
            this.bytes = bytes;
        }

        boolean real() {
            return this == FLOAT32 || this == FLOAT64;
        }
    }

    final Type type;
    private final String what;
    private int size;
    private float @Nullable [] floats;
    private double @Nullable [] doubles;
    private int @Nullable [] ints;

    Numbers(Type type, String what) {
        this.type = type;
        this.what = what;
        switch (type) {
            case FLOAT32 -> floats = new float[16];
            case FLOAT64 -> doubles = new double[16];
            default -> ints = new int[16];
        }
    }

    /** Bytes as their bits, the highest first: as many as are wanted, or as there are. */
    Numbers bits(long most) {
        var out = new Numbers(type, what);
        int[] packed = Objects.requireNonNull(ints);
        int n = Math.toIntExact(Math.min(most, 8L * size));
        out.ints = new int[Math.max(1, n)];
        for (int i = 0; i < n; i++) {
            out.ints[i] = packed[i >> 3] >> (7 - (i & 7)) & 1;
        }
        out.size = n;
        return out;
    }

    int size() {
        return size;
    }

    private void room(int more, int most, long end) {
        long wanted = (long) size + more;
        if (wanted > Integer.MAX_VALUE - 8) {
            throw FormatError.tooLarge(
                    what + " has more than 2 147 483 639 numbers, which is more than this program holds");
        }
        int have = ints != null ? ints.length : floats != null ? floats.length : doubles().length;
        if (wanted > have) {
            // Twice as much each time, so that growing costs no more than reading; what is sure is taken at once.
            long grown = Math.max(most, 2L * have);
            int next = (int) Math.min(Integer.MAX_VALUE - 8, Math.max(wanted, Math.min(grown, end)));
            ints = ints == null ? null : Arrays.copyOf(ints, next);
            floats = floats == null ? null : Arrays.copyOf(floats, next);
            doubles = doubles == null ? null : Arrays.copyOf(doubles, next);
        }
    }

    /**
     * Appends the numbers in a buffer, whose byte order is set.
     *
     * @param most how many numbers there will be for sure
     * @param end how many there will be in the end, as the file claims: growing stops there
     */
    void add(ByteBuffer in, int most, long end) {
        int n = in.remaining() / type.bytes;
        if (in.remaining() % type.bytes != 0) {
            throw new FormatError(what + " ends in the middle of a number");
        }
        room(n, most, end);
        switch (type) {
            case FLOAT32 -> in.asFloatBuffer().get(floats, size, n);
            case FLOAT64 -> in.asDoubleBuffer().get(doubles, size, n);
            case INT32 -> in.asIntBuffer().get(target(), size, n);
            default -> {
                for (int i = 0; i < n; i++) {
                    int at = in.position() + i * type.bytes;
                    put(
                            size + i,
                            switch (type) {
                                case INT8 -> in.get(at);
                                case UINT8 -> in.get(at) & 0xff;
                                case INT16 -> in.getShort(at);
                                case UINT16 -> in.getShort(at) & 0xffff;
                                case UINT32 -> in.getInt(at) & 0xffffffffL;
                                default -> in.getLong(at);
                            });
                }
            }
        }
        size += n;
    }

    /** Where numbers go that are kept as doubles. */
    private double[] doubles() {
        return Objects.requireNonNull(doubles);
    }

    /** The integer target; once a number did not fit an int, all are kept as doubles and this is a scratch array. */
    private int @Nullable [] target() {
        return ints;
    }

    private void put(int at, long value) {
        boolean beyond = type == Type.UINT64 && value < 0;
        if (ints != null && (beyond || value != (int) value)) {
            doubles = new double[ints.length];
            for (int i = 0; i < at; i++) {
                doubles[i] = ints[i];
            }
            ints = null;
        }
        if (ints != null) {
            ints[at] = (int) value;
        } else {
            doubles()[at] = beyond ? value + 0x1p64 : value;
        }
    }

    /** Appends a number written as text. */
    void add(String token) {
        add(token.toCharArray(), token.length());
    }

    /** Appends a number written in the first n characters. */
    void add(char[] text, int n) {
        room(1, 0, Long.MAX_VALUE);
        try {
            if (type.real()) {
                double v = real(text, n);
                if (floats != null) {
                    floats[size] = (float) v;
                } else {
                    doubles()[size] = v;
                }
            } else {
                put(size, whole(text, n));
            }
        } catch (NumberFormatException e) {
            String token = new String(text, 0, n);
            throw new FormatError(what + " holds \"" + (token.length() > 20 ? token.substring(0, 20) + "…" : token)
                    + "\" where a number belongs");
        }
        size++;
    }

    private long whole(char[] text, int n) {
        // Nine digits fit an int: most numbers of nodes and cells.
        if (n > 0 && n < 10) {
            int value = 0;
            for (int i = 0; i < n && value >= 0; i++) {
                int digit = text[i] - '0';
                value = digit < 0 || digit > 9 ? -1 : 10 * value + digit;
            }
            if (value >= 0) {
                return value;
            }
        }
        String token = new String(text, 0, n);
        return type == Type.UINT64 ? Long.parseUnsignedLong(token) : Long.parseLong(token);
    }

    private static double real(char[] text, int n) {
        char last = text[n - 1];
        if (last == 'n' || last == 'N' || last == 'f' || last == 'F' || last == ')') {
            String t = new String(text, 0, n).toLowerCase(java.util.Locale.ROOT);
            if (t.startsWith("nan") || t.startsWith("-nan") || t.startsWith("+nan")) {
                return Double.NaN;
            }
            if (t.equals("inf") || t.equals("+inf")) {
                return Double.POSITIVE_INFINITY;
            }
            if (t.equals("-inf")) {
                return Double.NEGATIVE_INFINITY;
            }
            throw new NumberFormatException(t);
        }
        return Decimal.of(text, n);
    }

    Values values() {
        if (ints != null) {
            return new Values.Ints(size == ints.length ? ints : Arrays.copyOf(ints, size));
        }
        if (floats != null) {
            return new Values.Floats(size == floats.length ? floats : Arrays.copyOf(floats, size));
        }
        double[] all = doubles();
        return new Values.Doubles(size == all.length ? all : Arrays.copyOf(all, size));
    }

    /** Coordinates: always double. */
    double[] toDoubles() {
        if (doubles != null) {
            return size == doubles.length ? doubles : Arrays.copyOf(doubles, size);
        }
        double[] out = new double[size];
        for (int i = 0; i < size; i++) {
            out[i] = floats != null ? floats[i] : Objects.requireNonNull(ints)[i];
        }
        return out;
    }

    /** Node numbers and offsets: whole numbers that fit an int. */
    int[] toInts() {
        if (ints == null) {
            throw new FormatError(what + " must hold whole numbers below 2 147 483 648");
        }
        return size == ints.length ? ints : Arrays.copyOf(ints, size);
    }
}
