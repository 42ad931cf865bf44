package lane.transfer;

import lane.field.Field;

/**
 * A field's values as they go from one mesh to another.
 *
 * @param field as stored on the source
 * @param values on the target, component by component of each place; NaN for absent
 * @param at where on the target
 * @param outside number of places without a value
 * @param largestChange that was made by imposing values afterwards, the magnitude of vectors; NaN where none was imposed
 * @param source the integral over the source, one a component
 * @param overlap the integral of the source's field over what both meshes have in common; empty where that was not looked for
 * @param target the integral over the target's cells that have values
 */
public record Numbers(
        Field field,
        double[] values,
        Field.At at,
        int outside,
        double largestChange,
        double[] source,
        double[] overlap,
        double[] target) {
    /** The values as a field of the target. */
    public Field onTarget() {
        return new Field(field.name(), at, field.components(), field.unit(), lane.field.Values.of(values));
    }

    Numbers with(double[] others, double change, double[] integral) {
        return new Numbers(field, others, at, outside, change, source, overlap, integral);
    }
}
