package lane.picture.field;

import java.awt.Graphics2D;
import java.awt.image.BufferedImage;
import java.util.List;
import lane.base.LaneException;
import lane.evaluation.EvaluationContext;
import lane.evaluation.SurfaceValues;
import lane.field.Part;
import lane.field.PartBuilder;
import lane.field.Run;
import lane.picture.Export;
import lane.picture.Palette;
import lane.quantity.Quantity;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/**
 * The surface of a run, coloured by a quantity, as a picture that needs no window.
 *
 * @param range of the values in SI units
 * @param unit that they are shown in
 */
public record SurfacePicture(BufferedImage image, Range range, Unit unit) {
    /** From where it is seen: turned about z, and from how high, in radians. */
    public record View(double yaw, double pitch) {}

    /**
     * @param quantity null for none
     * @param scale whether the colours' scale stands beside it
     * @throws LaneException when there is nothing to draw, or the run lacks what the quantity needs
     */
    public static SurfacePicture of(
            Run run,
            @Nullable Quantity quantity,
            EvaluationContext lens,
            View view,
            int width,
            int height,
            Palette palette,
            boolean scale) {
        int bar = quantity == null || !scale ? 0 : Annotations.BAR_WIDTH;
        Camera camera = Camera.fit(
                        run.mesh().bounds(), Math.max(20, width - bar), height - 20, view.yaw(), view.pitch())
                .moved(-bar / 2.0, 0);
        return of(run, quantity, lens, camera, width, height, palette, scale);
    }

    /**
     * The same from where a camera stands.
     *
     * @throws LaneException when there is nothing to draw, or the run lacks what the quantity needs
     */
    public static SurfacePicture of(
            Run run,
            @Nullable Quantity quantity,
            EvaluationContext lens,
            Camera camera,
            int width,
            int height,
            Palette palette,
            boolean scale) {
        Part part = surface(run);
        SurfaceValues values = quantity == null ? null : SurfaceValues.of(run, part, quantity, lens);
        Scene scene = new Scene(List.of(Scene.surface(
                part.name(),
                part.surface(),
                values == null ? new float[0] : values.value(),
                values == null || values.byNode(),
                1)));
        Range range = Range.of(values == null ? List.of() : List.of(values.value()), Range.Kind.WHOLE);
        var look = new Look(
                range.signed() ? ColourScale.SIGNED : ColourScale.SIZE,
                range.least(),
                range.greatest(),
                true,
                false,
                palette.dark());
        DrawnFrame frame = Rasteriser.draw(
                scene, camera, look, width, height, palette.ground().getRGB() & 0xffffff);
        BufferedImage image = Export.image(frame.argb(), width, height);
        if (scale) {
            Graphics2D g = image.createGraphics();
            Annotations.Bar drawn = values == null || quantity == null
                    ? null
                    : new Annotations.Bar(
                            quantity.name(),
                            values.unit().label(),
                            values.unit().fromSi(range.least()),
                            values.unit().fromSi(range.greatest()),
                            look.scale(),
                            "");
            Annotations.paint(g, camera, width, height, Annotations.Over.of(List.of(), drawn), palette);
            g.dispose();
        }
        return new SurfacePicture(image, range, values == null ? Unit.ONE : values.unit());
    }

    /** The boundary of a solid; the cells of a surface themselves. */
    private static Part surface(Run run) {
        if (run.mesh().dimension() == 3) {
            return new PartBuilder(run.mesh()).whole("surface");
        }
        if (run.mesh().dimension() < 2) {
            throw new LaneException("The file holds no surface and no volume, so there is nothing to draw.");
        }
        return Part.ofCells("surface", run.mesh());
    }
}
