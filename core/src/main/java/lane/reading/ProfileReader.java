package lane.reading;

import java.util.Map;
import lane.field.Field;
import lane.field.Run;
import lane.quantity.Quantity;
import lane.station.CurveAxis;
import lane.station.Placement;
import lane.station.Station;
import lane.trail.Trail;
import lane.unit.Unit;

/** Reads a quantity along a placed line. The components are interpolated first, then the number is taken of them. */
public final class ProfileReader {
    private ProfileReader() {}

    public static Profile read(
            Run run, Placement placement, Station line, Quantity quantity, Lens lens, String unitText, Trail trail) {
        Field field = lens.onMesh(run, quantity);
        lens.requireNumber(quantity, field);
        Unit stored = lens.unit(run, field);
        Unit shown = Outcome.shown(
                unitText,
                Outcome.shown(quantity.unit(), stored, "Quantity \"" + quantity.name() + "\""),
                "Reading on \"" + line.name() + "\"");
        int n = placement.size();
        int components = field.components();
        double[][] parts = new double[components][];
        for (int c = 0; c < components; c++) {
            parts[c] = placement.apply(field, c);
        }
        double[] value = new double[n];
        double[] abscissa =
                switch (line) {
                    case Station.Path p -> p.abscissa().of(placement.arc(), p.length(), placement.xyz(), lens.axis());
                    default ->
                        java.util.stream.IntStream.rangeClosed(1, n)
                                .asDoubleStream()
                                .toArray();
                };
        double[] v = new double[components];
        double[] xyz = placement.xyz();
        int found = 0;
        CurveAxis axis = CurveAxis.of(line);
        // A plane mesh of a full turn holds the values of angle zero; elsewhere vectors are turned along.
        boolean turned = run.stated().turn() != null && run.mesh().dimension() == 2;
        for (int i = 0; i < n; i++) {
            for (int c = 0; c < components; c++) {
                v[c] = stored.toSi(parts[c][i]);
            }
            if (turned && components == 3) {
                lens.axis().turn(lens.axis().angle(xyz[3 * i], xyz[3 * i + 1], xyz[3 * i + 2]), v, v);
            }
            value[i] =
                    components == 1 && !quantity.take().needsVector() && quantity.take() != lane.quantity.Take.MAGNITUDE
                            ? v[0]
                            : quantity.take().of(v, xyz[3 * i], xyz[3 * i + 1], xyz[3 * i + 2], lens.axis());
            found += Double.isFinite(value[i]) ? 1 : 0;
        }
        String stand = field.at() == Field.At.NODE ? "interpolated between nodes" : "cell values as stored";
        Trail full = trail.then(
                        "source",
                        "field " + field.name() + ", " + field.at().word() + ", " + stored.label(),
                        Map.of("field", field.name(), "stored at", field.at().word(), "stored unit", stored.label()))
                .then(
                        "quantity",
                        quantity.name(),
                        Map.of("take", quantity.take().word(), "axis", String.valueOf(lens.axis())))
                .then(
                        "station",
                        line.word() + " \"" + line.name() + "\", " + n + " samples",
                        Map.of(
                                "geometry",
                                line.geometry().toString(),
                                "abscissa",
                                axis.word(),
                                "found",
                                String.valueOf(placement.found()),
                                "moved",
                                placement.moved() + ", at most " + placement.largestMove() + " m"))
                .then("reading", "profile", Map.of("interpolation", stand, "unit", shown.label()));
        return new Profile(abscissa, value, new double[0], axis.word(), axis.unit(), shown, false, found, stand, full);
    }
}
