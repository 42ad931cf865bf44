package lane.formats.grid;

import lane.base.Memo;

/**
 * How a file is opened.
 *
 * @param onDemand whether numbers of fields are read only when somebody asks for them
 * @param grids where meshes stand that were read before, under what decides them in the file, so that one that stays the same
 *     over time is made once
 */
public record Opening(boolean onDemand, Memo grids) {
    /** Everything is read, and nothing is known from before. */
    public static final Opening WHOLE = new Opening(false, Memo.NONE);

    public static Opening onDemand(Memo grids) {
        return new Opening(true, grids);
    }
}
