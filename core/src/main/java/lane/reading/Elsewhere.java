package lane.reading;

import lane.base.LaneException;

/** What other lanes, and this one, answered to the readings of the study: for what compares answers. */
public interface Elsewhere {
    /** Where nothing else is known. */
    Elsewhere NONE = new Elsewhere() {
        @Override
        public Outcome answer(String lane, Reading reading) {
            throw new LaneException(
                    "The answers of other lanes are not known here, such as at each of many stored times.");
        }

        @Override
        public String own() {
            return "";
        }

        @Override
        public Reading reading(String id) {
            throw new LaneException("Other readings are not known here, such as at each of many stored times.");
        }
    };

    /**
     * @param lane key
     * @throws LaneException when there is no such lane
     */
    Outcome answer(String lane, Reading reading);

    /** Key of the lane that is being read. */
    String own();

    /** @throws LaneException when the study has no such reading */
    Reading reading(String id);
}
