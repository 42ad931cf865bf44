package lane.quantity;

import lane.formula.Printer;

/**
 * What to look at: a formula of fields, other quantities, readings and places, written once for every lane.
 *
 * @param id stable key within the study
 * @param name for people, and in other formulas
 * @param formula in the language of docs/FORMULAS.md
 * @param unit of the values as shown; blank follows the formula
 * @param note where it comes from
 */
public record Quantity(String id, String name, String formula, String unit, String note) {
    public Quantity {
        note = note == null ? "" : note;
        lane.unit.Unit.of(unit);
    }

    /** What is taken of a stored field. */
    public Quantity(String id, String name, String field, Component take, String unit) {
        this(id, name, take.of(Printer.name(field)), unit, "");
    }

    /** From a study file: by a formula, or by what is taken of a field. */
    public static Quantity read(
            String id, String name, String formula, String field, Component take, String unit, String note) {
        boolean byField = formula == null || formula.isBlank();
        Component taken = take == null ? Component.ALL : take;
        String text = byField ? field == null || field.isBlank() ? "" : taken.of(Printer.name(field)) : formula;
        return new Quantity(id, name, text, unit == null ? "" : unit, note);
    }

    /**
     * The name that, within the formula itself, means the stored field: the quantity's own, so that one may define
     * {@code pressure} from the field {@code pressure}; for what is taken of a field as it stands, the field's.
     */
    public String self() {
        return FieldQuantity.of(id).formula().equals(formula) ? FieldQuantity.field(id) : name;
    }

    public Quantity named(String other) {
        return new Quantity(id, other, formula, unit, note);
    }

    public Quantity by(String other) {
        return new Quantity(id, name, other, unit, note);
    }

    public Quantity in(String other) {
        return new Quantity(id, name, formula, other, note);
    }

    public Quantity noted(String other) {
        return new Quantity(id, name, formula, unit, other);
    }
}
