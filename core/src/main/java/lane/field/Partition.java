package lane.field;

import lane.base.Work;

/**
 * A run at one time that is stored in pieces and is read one piece after the other, so that no more than one of them has to be
 * held. Each piece knows the files, the times and what was stated of the whole; its parts are those of the whole, empty where it
 * has none of their faces; where it meets other pieces it has no boundary.
 */
public interface Partition {
    /** Number of pieces. */
    int size();

    /** One of them, opened. */
    Run piece(int k, Work work);

    /** What stands for the whole where no mesh is asked: its first piece, which gives nothing on its own. */
    Run head();
}
