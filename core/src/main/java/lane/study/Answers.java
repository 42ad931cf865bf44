package lane.study;

import java.util.List;
import java.util.Optional;

/**
 * Answers that are kept beyond the program's end, by the definitions that they rest on: made by this program before, by another
 * one beside it, or by a colleague. One holds as long as its files have the same content.
 */
public interface Answers {
    /** Keeps nothing. */
    Answers NONE = new Answers() {
        @Override
        public Optional<Answered> of(Source.Simulation lane, List<?> definition, double time) {
            return Optional.empty();
        }

        @Override
        public void keep(Source.Simulation lane, List<?> definition, Answered made) {}
    };

    /**
     * What is kept under a definition.
     *
     * @param time that the run is open at; NaN where its files cannot be read here, and what others read of them is taken
     */
    Optional<Answered> of(Source.Simulation lane, List<?> definition, double time);

    void keep(Source.Simulation lane, List<?> definition, Answered made);

    /** Why what is missing of a lane is not computed here, in one sentence; empty where it is. */
    default Optional<String> awaited(Source.Simulation lane) {
        return Optional.empty();
    }
}
