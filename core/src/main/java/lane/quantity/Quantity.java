package lane.quantity;

/**
 * What to look at: a stored field, or a number taken of it.
 *
 * @param id stable key within the study
 * @param name for people
 * @param field name of the stored field, the same in every run
 * @param take what is taken of it
 * @param unit of the values as shown; blank follows the field
 */
public record Quantity(String id, String name, String field, Take take, String unit) {
    public Quantity {
        lane.unit.Unit.of(unit);
    }
}
