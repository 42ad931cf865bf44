package lane.formats.hdf;

import lane.field.Values;

/** Symmetric tensors of XDMF, which stand as xx xy xz yy yz zz in files and as xx yy zz xy yz xz here. */
final class Tensor6 {
    /** Where each number stands in the other order; the same both ways. */
    private static final int[] OTHER = {0, 3, 5, 1, 4, 2};

    private Tensor6() {}

    /** From the order of the file to ours, or back. */
    static Values turned(Values values) {
        int[] pick = new int[values.length()];
        for (int i = 0; i < pick.length; i++) {
            pick[i] = i - i % 6 + OTHER[i % 6];
        }
        return values.pick(1, pick);
    }
}
