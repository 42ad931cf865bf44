package lane.desk.stations;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.WeakHashMap;
import lane.base.LaneException;
import lane.evaluation.EvaluationContext;
import lane.evaluation.SurfaceValues;
import lane.field.Part;
import lane.field.Run;
import lane.mesh.Mesh;
import lane.picture.field.Annotations;
import lane.picture.field.BandLabels;
import lane.picture.field.Coarse;
import lane.picture.field.ColourScale;
import lane.picture.field.DrawnFrame;
import lane.picture.field.Look;
import lane.picture.field.Range;
import lane.picture.field.Scene;
import lane.quantity.Quantity;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/**
 * The surfaces of one run coloured by one quantity, ready to draw.
 *
 * @param values one a part, null where the part does not have the quantity
 * @param least and {@code greatest}: ends of the colour scale in SI units
 */
record FieldScene(
        Run run,
        Scene scene,
        List<Part> parts,
        List<SurfaceValues> values,
        Unit unit,
        double least,
        double greatest,
        ColourScale scale,
        Colouring colouring,
        String trouble,
        Scene coarse) {
    /** Triangles of the parts drawn lately: another quantity or time colours the same. */
    private static final Map<Mesh, Scene.Surface> CUT = Collections.synchronizedMap(new WeakHashMap<>());

    /**
     * What is drawn of a run.
     *
     * @param extra surfaces of stations
     * @param others values that take part in the range
     * @param given values of parts where another number than the quantity is shown; null for the quantity
     */
    static FieldScene of(
            Run run,
            @Nullable Quantity quantity,
            EvaluationContext lens,
            Shown how,
            List<Part> extra,
            Colouring colouring,
            List<float[]> others,
            List<Scene.Away> away,
            @Nullable Map<Part, SurfaceValues> given) {
        List<Scene.Surface> surfaces = new ArrayList<>();
        List<SurfaceValues> values = new ArrayList<>();
        List<Part> parts = new ArrayList<>();
        List<float[]> seen = new ArrayList<>();
        Unit unit = Unit.UNKNOWN;
        String trouble = "";
        List<Part> all =
                new ArrayList<>(run.mesh().dimension() == 2 ? List.of(Part.ofCells("cells", run.mesh())) : run.parts());
        int own = all.size();
        all.addAll(extra);
        for (int i = 0; i < all.size(); i++) {
            Part part = all.get(i);
            double opacity = i >= own ? 1 : how.opacity(part.name());
            if (opacity == 0) {
                continue;
            }
            parts.add(part);
            SurfaceValues v = null;
            try {
                v = given == null
                        ? quantity == null ? null : SurfaceValues.of(run, part, quantity, lens)
                        : given.get(part);
            } catch (LaneException e) {
                trouble = e.getMessage();
            }
            values.add(v);
            if (v != null) {
                unit = v.unit();
                seen.add(v.value());
            }
            Scene.Surface made = CUT.computeIfAbsent(part.surface(), m -> Scene.surface("", m, new float[0], true, 1))
                    .showing(part.name(), v == null ? new float[0] : v.value(), v == null || v.byNode(), opacity);
            surfaces.add(i >= own ? made.kept() : made);
        }
        seen.addAll(others);
        Range range = colouring.ends() == Colouring.Ends.FIXED && unit.known()
                ? new Range(
                        unit.toSi(colouring.least()),
                        unit.toSi(colouring.greatest()),
                        colouring.least() < 0 && colouring.greatest() > 0)
                : Range.of(seen, colouring.ends() == Colouring.Ends.ROBUST ? Range.Kind.ROBUST : Range.Kind.WHOLE);
        var scene = new Scene(surfaces, away);
        return new FieldScene(
                run,
                scene,
                parts,
                values,
                unit,
                range.least(),
                range.greatest(),
                range.signed() ? ColourScale.SIGNED : ColourScale.SIZE,
                colouring,
                trouble,
                Coarse.of(scene));
    }

    /** The box of what is shown. */
    double[] bounds() {
        double[] b = null;
        for (Part p : parts) {
            double[] own = p.surface().bounds();
            for (int d = 0; b != null && d < 6; d++) {
                b[d] = d % 2 == 0 ? Math.min(b[d], own[d]) : Math.max(b[d], own[d]);
            }
            b = b == null ? own : b;
        }
        return b == null ? run.mesh().bounds() : b;
    }

    /** Values of the lines between bands, in the unit shown. */
    List<Annotations.BandLabel> bandLabels(DrawnFrame frame, FieldPane.Content shown) {
        Look look = look(shown.shaded(), shown.edges(), shown.palette().dark());
        return BandLabels.of(frame, look, v -> lane.desk.Ui.shortest(rounded(unit.fromSi(v))));
    }

    /** Four digits, which is what bands bear. */
    private static double rounded(double v) {
        return Double.isFinite(v)
                ? new java.math.BigDecimal(v)
                        .round(new java.math.MathContext(4))
                        .doubleValue()
                : 0;
    }

    /** Values on the boundary of a run. */
    static List<float[]> values(Run run, Quantity quantity, EvaluationContext lens) {
        List<float[]> out = new ArrayList<>();
        for (Part part : run.mesh().dimension() == 2 ? List.of(Part.ofCells("cells", run.mesh())) : run.parts()) {
            try {
                out.add(SurfaceValues.of(run, part, quantity, lens).value());
            } catch (LaneException e) {
                // A lane without the quantity has no part in the range.
            }
        }
        return out;
    }

    Look look(boolean shaded, boolean edges, boolean dark) {
        return new Look(scale, least, greatest, shaded, edges, dark, colouring.style());
    }

    /**
     * How much is seen of boundary parts.
     *
     * @param faint whether all are, for what stands inside
     */
    record Shown(Set<String> clear, Set<String> hidden, boolean faint) {
        Shown {
            clear = Set.copyOf(clear);
            hidden = Set.copyOf(hidden);
        }

        double opacity(String part) {
            return hidden.contains(part) ? 0 : faint ? 0.10 : clear.contains(part) ? 0.22 : 1;
        }
    }

    Annotations.Bar bar(String quantity, boolean shaded) {
        String note = (scale == ColourScale.SIGNED ? "signed scale" : "size scale")
                + (shaded ? ",\nshaded" : ",\nflat")
                + colouring.word();
        return new Annotations.Bar(quantity, unit.label(), unit.fromSi(least), unit.fromSi(greatest), scale, note);
    }
}
