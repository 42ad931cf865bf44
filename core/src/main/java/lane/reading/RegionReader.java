package lane.reading;

import java.util.LinkedHashMap;
import java.util.Map;
import lane.base.LaneException;
import lane.base.Parallel;
import lane.base.Sum;
import lane.field.Field;
import lane.field.Run;
import lane.mesh.CellQuadrature;
import lane.mesh.Point;
import lane.quantity.Quantity;
import lane.quantity.Take;
import lane.trail.Trail;
import lane.unit.Unit;

/**
 * Tallies over cells: volume, mean, integral, least and greatest value. The integrand is formed at quadrature points of
 * degree 4; sums are compensated and merged in the order of the cells. A plane run's cells count for its depth, or for
 * the full turn that it stands for.
 */
public final class RegionReader {
    private static final int BLOCK = 1024;
    private static final int DEGREE = 4;

    private RegionReader() {}

    /** @param cells numbers of the cells, ascending */
    public static Tally read(
            Run run, int[] cells, Measure measure, String where, Lens lens, String unitText, Trail trail) {
        if (cells.length == 0) {
            throw new LaneException("Region \"" + where + "\" holds no cell of this run; make it larger or move it.");
        }
        double value;
        Unit natural;
        String place = "";
        switch (measure) {
            case Measure.Area _ -> {
                value = sums(run, cells, null, lens)[1];
                natural = Unit.of("m3");
            }
            case Measure.Mean m -> {
                Quantity q = lens.quantity(m.quantity());
                double[] s = sums(run, cells, q, lens);
                value = s[0] / s[1];
                natural = shown(run, q, lens);
            }
            case Measure.Integral m -> {
                Quantity q = lens.quantity(m.quantity());
                value = sums(run, cells, q, lens)[0];
                natural = shown(run, q, lens).si().times(Unit.of("m3"));
            }
            case Measure.Extreme m -> {
                Quantity q = lens.quantity(m.quantity());
                Located found = extreme(run, cells, q, lens, m.greatest());
                value = found.value;
                place = " at " + TallyReader.at(found.place);
                natural = shown(run, q, lens);
            }
            default ->
                throw new LaneException("A " + TallyReader.describe(measure)
                        + " is taken over surfaces; over a region take its volume, a mean, an integral or an extreme.");
        }
        Unit unit = Outcome.shown(unitText, natural, "Tally");
        var settings = new LinkedHashMap<String, String>();
        settings.put("cells", String.valueOf(cells.length));
        settings.put("quadrature degree", String.valueOf(DEGREE));
        Trail full = trail.then("station", "region \"" + where + "\", " + cells.length + " cells", settings)
                .then(
                        "reading",
                        TallyReader.describe(measure),
                        Map.of("measure", measure.toString(), "unit", unit.label()));
        return new Tally(
                value,
                Double.NaN,
                unit,
                Map.of(),
                measure.sign(),
                "over " + where + ", " + cells.length + " cells" + place,
                full);
    }

    private static Unit shown(Run run, Quantity q, Lens lens) {
        return Outcome.shown(q.unit(), lens.unit(run, lens.onMesh(run, q)), "Quantity \"" + q.name() + "\"");
    }

    private record Located(double value, Point place) {}

    /** Integral of the quantity and volume, in SI units. */
    private static double[] sums(Run run, int[] cells, Quantity quantity, Lens lens) {
        Field field = quantity == null ? null : lens.onMesh(run, quantity);
        if (field != null) {
            lens.requireNumber(quantity, field);
        }
        Unit stored = field == null ? Unit.ONE : lens.unit(run, field);
        Span span = Span.of(run, lens.axis());
        int components = field == null ? 0 : field.components();
        boolean plain = components == 1 && quantity.take() == Take.ALL;
        double[][] partial = new double[Parallel.blocks(cells.length, BLOCK)][];
        Parallel.forBlocks(cells.length, BLOCK, (block, from, to) -> {
            var rule = new CellQuadrature(run.mesh(), DEGREE);
            var integral = new Sum();
            var volume = new Sum();
            double[] v = new double[Math.max(1, components)];
            for (int i = from; i < to; i++) {
                rule.load(cells[i]);
                for (int q = 0; q < rule.size(); q++) {
                    rule.at(q);
                    double w = rule.weight() * span.weight(rule.x(), rule.y(), rule.z());
                    volume.add(w);
                    if (field == null) {
                        continue;
                    }
                    for (int c = 0; c < components; c++) {
                        double sum = 0;
                        if (field.at() == Field.At.CELL) {
                            sum = field.values().get(cells[i] * components + c);
                        } else {
                            for (int k = 0; k < rule.cell().size(); k++) {
                                sum += rule.weights()[k]
                                        * field.values().get(rule.cell().node(k) * components + c);
                            }
                        }
                        v[c] = stored.toSi(sum);
                    }
                    integral.add(w * (plain ? v[0] : quantity.take().of(v, rule.x(), rule.y(), rule.z(), lens.axis())));
                }
            }
            partial[block] = new double[] {integral.value(), volume.value()};
        });
        var integral = new Sum();
        var volume = new Sum();
        for (double[] p : partial) {
            integral.add(p[0]);
            volume.add(p[1]);
        }
        return new double[] {integral.value(), volume.value()};
    }

    private static Located extreme(Run run, int[] cells, Quantity quantity, Lens lens, boolean greatest) {
        Field field = lens.onMesh(run, quantity);
        lens.requireNumber(quantity, field);
        Unit stored = lens.unit(run, field);
        int components = field.components();
        boolean plain = components == 1 && quantity.take() == Take.ALL;
        var mesh = run.mesh();
        var cell = new lane.mesh.Cell(mesh);
        double[] v = new double[components];
        double[] at = new double[3];
        double best = Double.NaN;
        double[] place = new double[3];
        for (int c : cells) {
            boolean byNode = field.at() == Field.At.NODE;
            cell.load(c);
            for (int k = 0; k < (byNode ? cell.size() : 1); k++) {
                int index = byNode ? cell.node(k) : c;
                for (int d = 0; d < components; d++) {
                    v[d] = stored.toSi(field.values().get(index * components + d));
                }
                if (byNode) {
                    System.arraycopy(mesh.xyz(), 3 * index, at, 0, 3);
                } else {
                    cell.centre(at);
                }
                double value = plain ? v[0] : quantity.take().of(v, at[0], at[1], at[2], lens.axis());
                if (!Double.isNaN(value) && (Double.isNaN(best) || (greatest ? value > best : value < best))) {
                    best = value;
                    place = at.clone();
                }
            }
        }
        if (Double.isNaN(best)) {
            throw new LaneException("Quantity \"" + quantity.name() + "\" has no value in the region.");
        }
        return new Located(best, new Point(place[0], place[1], place[2]));
    }
}
