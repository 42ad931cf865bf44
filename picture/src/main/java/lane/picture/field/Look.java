package lane.picture.field;

/**
 * How surfaces are coloured.
 *
 * @param scale colours of values
 * @param least value at the lower end, {@code greatest} at the upper, in SI units
 * @param shaded true for light and shadow, false for flat colours that can be read against the scale
 * @param edges whether the edges of faces are drawn
 * @param dark theme
 */
public record Look(ColourScale scale, double least, double greatest, boolean shaded, boolean edges, boolean dark) {}
