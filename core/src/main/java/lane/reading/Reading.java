package lane.reading;

import java.util.List;
import java.util.Set;

/**
 * A question asked of every lane.
 *
 * @param id stable key within the study
 * @param name for people, and in formulas
 * @param unit of the numbers as shown; blank follows the quantity
 * @param ask what is asked
 */
public record Reading(String id, String name, String unit, Ask ask) {
    public Reading named(String other) {
        return new Reading(id, other, unit, ask);
    }

    public Reading in(String otherUnit) {
        return new Reading(id, name, otherUnit, ask);
    }

    public Reading asking(Ask other) {
        return new Reading(id, name, unit, other);
    }

    /** Keys of the stations it looks at. */
    public List<String> stations() {
        return ask.stations();
    }

    /** Keys of the quantities it needs. */
    public Set<String> quantities() {
        return ask.quantities();
    }

    /** Whether the answer is a curve. */
    public boolean curve() {
        return ask.form() == Ask.Form.CURVE;
    }

    /** Names by which formulas know its numbers. */
    public List<String> numbers() {
        return ask.numbers(name);
    }
}
