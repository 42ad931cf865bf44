package lane.reading;

import lane.mesh.Point;
import lane.trail.Trail;
import lane.unit.Unit;

/** What a lane answers to a reading: a profile, a tally, a balance, or the reason why it cannot. */
public sealed interface Outcome permits Outcome.Absent, Profile, Tally, Balance {
    Trail trail();

    /**
     * No answer.
     *
     * @param brief two or three words for a chip, such as {@code no temperature}
     * @param reason one sentence
     */
    record Absent(String brief, String reason) implements Outcome {
        @Override
        public Trail trail() {
            return Trail.EMPTY;
        }
    }

    /** A value at a place. */
    record Located(double value, Point place) {}

    /** The unit a reading is shown in: its own if stated, else the given one. */
    static Unit shown(String stated, Unit natural, String where) {
        Unit unit = Unit.of(stated);
        if (!unit.known()) {
            return natural;
        }
        if (natural.known()) {
            natural.requireComparable(unit, where);
        }
        return unit;
    }
}
