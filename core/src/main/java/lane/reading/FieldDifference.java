package lane.reading;

import java.util.List;
import lane.base.LaneException;
import lane.base.Work;
import lane.evaluation.BoundQuantity;
import lane.evaluation.EvaluationContext;
import lane.field.Field;
import lane.field.Part;
import lane.field.Run;
import lane.field.Values;
import lane.mesh.Axis;
import lane.provenance.Provenance;
import lane.quantity.Quantity;
import lane.station.Placement;
import lane.station.Placer;
import lane.station.Points;
import lane.station.Station;
import lane.transfer.MeshTransfer;
import lane.unit.Unit;

/** Values of one run at the places of another's mesh, by interpolation in the cells of the first. */
public final class FieldDifference {
    /** The field's name in a difference run. */
    public static final String DIFFERENCE = "difference";

    private FieldDifference() {}

    /**
     * The difference of two runs, as a run on the datum's mesh: {@code of - datum} at its nodes, or at the middles of its
     * cells where the datum stores the quantity in cells. Places outside the first run are absent.
     *
     * @param run the field {@value #DIFFERENCE} on the datum's mesh, with the datum's parts
     * @param outside share of the places that lie outside the first run
     */
    public record Result(Run run, double outside) {}

    /** @throws LaneException when a run lacks the quantity */
    public static Result difference(Run of, Run datum, Quantity quantity, EvaluationContext lens, Work work) {
        boolean byNode = BoundQuantity.of(datum, quantity, lens).byNode();
        double[] xyz = byNode ? datum.mesh().xyz() : MeshTransfer.centres(datum.mesh());
        Values there = Values.of(values(datum, xyz, quantity, lens, work).value());
        Profile here = values(of, xyz, quantity, lens, work);
        double[] out = new double[here.value().length];
        int outside = 0;
        for (int i = 0; i < out.length; i++) {
            out[i] = here.value()[i] - there.get(i);
            outside += Double.isNaN(here.value()[i]) ? 1 : 0;
        }
        Unit si = here.unit().known() ? here.unit().difference().si() : Unit.UNKNOWN;
        var field = new Field(DIFFERENCE, byNode ? Field.At.NODE : Field.At.CELL, 1, si, Values.of(out));
        List<Part> parts = datum.parts().stream().map(p -> p.with(List.of())).toList();
        Run run = new Run(datum.mesh(), List.of(field), parts, datum.inputs(), List.of());
        return new Result(run, (double) outside / Math.max(1, out.length));
    }

    /** A quantity of a run at places of space, absent where they lie outside. */
    static Profile values(Run run, double[] xyz, Quantity quantity, EvaluationContext lens, Work work) {
        boolean meridian = run.stated().turn() != null && run.mesh().dimension() == 2;
        Axis turned = meridian ? lens.axis() : null;
        Placement at = Placer.points(run.locator(work), xyz, turned, work);
        var points = new Station("", "places", new Points(List.of(new lane.mesh.Point(0, 0, 0))));
        return ProfileReader.read(run, at, points, quantity, lens, "", Provenance.EMPTY);
    }
}
