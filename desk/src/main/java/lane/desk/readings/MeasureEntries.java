package lane.desk.readings;

import java.util.List;
import java.util.Optional;
import java.util.function.Function;
import lane.desk.Session;
import lane.measure.Area;
import lane.measure.Extreme;
import lane.measure.Flow;
import lane.measure.Flow.Carried;
import lane.measure.Force;
import lane.measure.Integral;
import lane.measure.Length;
import lane.measure.Mean;
import lane.measure.Measure;
import lane.measure.Moment;
import lane.measure.WeightedMean;
import lane.mesh.Point;

/** The kinds of measures that the program brings along, as the window has them. */
final class MeasureEntries {
    private MeasureEntries() {}

    private static final String SCALAR = MeasureChoices.needs(false, false);
    private static final String VECTOR = MeasureChoices.needs(true, false);
    private static final String LOAD = MeasureChoices.needs(false, true);

    private static MeasureEntry.Choice choice(
            String title, String needs, Function<Session, Optional<? extends Measure>> first) {
        return new MeasureEntry.Choice(title, first, needs);
    }

    /** See {@link Area}. */
    public static final class OfArea implements MeasureEntry {
        @Override
        public String word() {
            return "area";
        }

        @Override
        public Class<Area> type() {
            return Area.class;
        }

        @Override
        public List<Choice> choices() {
            return List.of(choice("area", "", s -> Optional.of(new Area())));
        }

        @Override
        public String words(Measure measure, String what) {
            return "area";
        }
    }

    /** See {@link Length}. */
    public static final class OfLength implements MeasureEntry {
        @Override
        public String word() {
            return "length";
        }

        @Override
        public Class<Length> type() {
            return Length.class;
        }

        @Override
        public List<Choice> choices() {
            return List.of(choice("length", "", s -> Optional.of(new Length())));
        }

        @Override
        public String words(Measure measure, String what) {
            return "length";
        }
    }

    /** See {@link Mean}. */
    public static final class OfMean implements MeasureEntry {
        @Override
        public String word() {
            return "mean";
        }

        @Override
        public Class<Mean> type() {
            return Mean.class;
        }

        @Override
        public List<Choice> choices() {
            return List.of(choice("mean", SCALAR, MeasureChoices::mean));
        }

        @Override
        public void rows(MeasureForm form, Measure measure) {
            form.scalar(((Mean) measure).quantity(), Mean::new);
        }
    }

    /** See {@link WeightedMean}. */
    public static final class OfWeightedMean implements MeasureEntry {
        @Override
        public String word() {
            return "weighted-mean";
        }

        @Override
        public Class<WeightedMean> type() {
            return WeightedMean.class;
        }

        @Override
        public List<Choice> choices() {
            return List.of(choice("mean by flow", VECTOR, s -> MeasureChoices.flow(s)
                    .flatMap(f -> MeasureChoices.mean(s).map(m -> new WeightedMean(m.quantity(), f.vector())))));
        }

        @Override
        public String words(Measure measure, String what) {
            return "mean by flow, " + what;
        }

        @Override
        public void rows(MeasureForm form, Measure measure) {
            var m = (WeightedMean) measure;
            form.scalar(m.quantity(), q -> new WeightedMean(q, m.vector()));
            form.vector("by flow of", m.vector(), q -> new WeightedMean(m.quantity(), q));
        }
    }

    /** See {@link Extreme}. */
    public static final class OfExtreme implements MeasureEntry {
        private static Choice extreme(String title, boolean greatest) {
            return choice(title, SCALAR, s -> MeasureChoices.mean(s).map(m -> new Extreme(m.quantity(), greatest)));
        }

        @Override
        public String word() {
            return "extreme";
        }

        @Override
        public Class<Extreme> type() {
            return Extreme.class;
        }

        @Override
        public List<Choice> choices() {
            return List.of(extreme("greatest value", true), extreme("least value", false));
        }

        @Override
        public String title(Measure measure) {
            return ((Extreme) measure).greatest() ? "greatest value" : "least value";
        }

        @Override
        public String words(Measure measure, String what) {
            return (((Extreme) measure).greatest() ? "greatest " : "least ") + what;
        }

        @Override
        public void rows(MeasureForm form, Measure measure) {
            var m = (Extreme) measure;
            form.scalar(m.quantity(), q -> new Extreme(q, m.greatest()));
        }
    }

    /** See {@link Integral}. */
    public static final class OfIntegral implements MeasureEntry {
        @Override
        public String word() {
            return "integral";
        }

        @Override
        public Class<Integral> type() {
            return Integral.class;
        }

        @Override
        public List<Choice> choices() {
            return List.of(
                    choice("integral", SCALAR, s -> MeasureChoices.mean(s).map(m -> new Integral(m.quantity()))));
        }

        @Override
        public String words(Measure measure, String what) {
            return "integral of " + what;
        }

        @Override
        public void rows(MeasureForm form, Measure measure) {
            form.scalar(((Integral) measure).quantity(), Integral::new);
        }
    }

    /** See {@link Flow}. */
    public static final class OfFlow implements MeasureEntry {
        @Override
        public String word() {
            return "flow";
        }

        @Override
        public Class<Flow> type() {
            return Flow.class;
        }

        @Override
        public List<Choice> choices() {
            return List.of(choice("flow", VECTOR, MeasureChoices::flow));
        }

        @Override
        public String words(Measure measure, String what) {
            return ((Flow) measure).carried() == Carried.NOTHING
                    ? "flow of " + what
                    : "angular momentum carried by " + what;
        }

        @Override
        public void rows(MeasureForm form, Measure measure) {
            form.flow((Flow) measure);
        }
    }

    /** See {@link Force}. */
    public static final class OfForce implements MeasureEntry {
        @Override
        public String word() {
            return "force";
        }

        @Override
        public Class<Force> type() {
            return Force.class;
        }

        @Override
        public List<Choice> choices() {
            return List.of(
                    choice("force", LOAD, s -> MeasureChoices.loads(s).map(l -> new Force(l, new Point(1, 0, 0)))));
        }

        @Override
        public String words(Measure measure, String what) {
            return "force";
        }

        @Override
        public void rows(MeasureForm form, Measure measure) {
            var f = (Force) measure;
            form.loads(f.loads(), l -> new Force(l, f.direction()));
            form.point("Along", "along", f.direction(), p -> new Force(f.loads(), MeasureForm.unit(p)));
        }
    }

    /** See {@link Moment}. */
    public static final class OfMoment implements MeasureEntry {
        @Override
        public String word() {
            return "moment";
        }

        @Override
        public Class<Moment> type() {
            return Moment.class;
        }

        @Override
        public List<Choice> choices() {
            return List.of(choice("moment", LOAD, s -> MeasureChoices.loads(s)
                    .map(l -> new Moment(l, s.study().axis()))));
        }

        @Override
        public String words(Measure measure, String what) {
            return "moment";
        }

        @Override
        public void rows(MeasureForm form, Measure measure) {
            var m = (Moment) measure;
            form.loads(m.loads(), l -> new Moment(l, m.axis()));
            form.axis(m.axis(), a -> new Moment(m.loads(), a));
        }
    }
}
