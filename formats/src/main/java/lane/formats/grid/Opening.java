package lane.formats.grid;

import lane.base.Memo;

/**
 * How a file is opened.
 *
 * @param onDemand whether numbers of fields are read only when somebody asks for them
 * @param grids where meshes stand that were read before, under what decides them in the file, so that one that stays the same
 *     over time is made once
 * @param piece the only one of the pieces that is read; {@link #ALL} for all of them
 */
public record Opening(boolean onDemand, Memo grids, int piece) {
    public static final int ALL = -1;

    /** Everything is read, and nothing is known from before. */
    public static final Opening WHOLE = new Opening(false, Memo.NONE, ALL);

    public static Opening onDemand(Memo grids) {
        return new Opening(true, grids, ALL);
    }

    /** One of the pieces alone, the first being 0. */
    public Opening only(int k) {
        return new Opening(onDemand, grids, k);
    }

    /** All of what one of the pieces holds. */
    public Opening inside() {
        return only(ALL);
    }

    public boolean wants(int k) {
        return piece == ALL || piece == k;
    }
}
