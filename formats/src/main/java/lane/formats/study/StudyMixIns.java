package lane.formats.study;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.annotation.JsonProperty;
import com.fasterxml.jackson.annotation.JsonPropertyOrder;
import com.fasterxml.jackson.annotation.JsonSetter;
import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonSubTypes.Type;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import com.fasterxml.jackson.annotation.JsonValue;
import com.fasterxml.jackson.annotation.Nulls;
import com.fasterxml.jackson.databind.json.JsonMapper;
import java.util.List;
import lane.check.Check;
import lane.check.Rule;
import lane.field.PartEdit;
import lane.field.TimeSelector;
import lane.measure.Measure;
import lane.quantity.Component;
import lane.quantity.Quantity;
import lane.reading.AroundOf;
import lane.reading.Ask;
import lane.reading.Reading;
import lane.reference.Curve;
import lane.reference.Recipe;
import lane.station.Abscissa;
import lane.station.Box;
import lane.station.CutCurve;
import lane.station.Enclosing;
import lane.station.Frame;
import lane.station.Points;
import lane.station.Sampling;
import lane.station.Shape;
import lane.station.Sheet;
import lane.station.Shell;
import lane.station.Station;
import lane.station.Sweep;
import lane.station.Within;
import lane.study.ChartLook;
import lane.study.Keyed;
import lane.study.LedgerLook;
import lane.study.PictureNote;
import lane.study.Pictures;
import lane.study.SavedView;
import lane.study.Settings;
import lane.study.Source;
import lane.study.Study;
import lane.study.TableTemplate;
import org.jspecify.annotations.Nullable;

/** How the parts of a study stand in JSON, where that is not plain from their records: which kind by which word, and what may be left out. */
final class StudyMixIns {
    private StudyMixIns() {}

    static JsonMapper.Builder on(JsonMapper.Builder plain) {
        return plain.addMixIn(Source.class, SourceKinds.class)
                .addMixIn(Source.Reference.class, ReferenceMixIn.class)
                .addMixIn(Shape.class, ByWord.class)
                .addMixIn(Box.class, WhereThereIsSome.class)
                .addMixIn(Sheet.class, LenientWhereThereIsSome.class)
                .addMixIn(Frame.class, Lenient.class)
                .addMixIn(Frame.Attitude.Turned.class, Lenient.class)
                .addMixIn(Shell.class, Lenient.class)
                .addMixIn(Sweep.class, Lenient.class)
                .addMixIn(AroundOf.class, AroundMixIn.class)
                .addMixIn(lane.reading.FeatureOf.class, LenientWhereThereIsSome.class)
                .addMixIn(lane.reading.FitOf.class, LenientWhereThereIsSome.class)
                .addMixIn(lane.reading.HistoryOf.class, LenientWhereThereIsSome.class)
                .addMixIn(lane.reading.OverTimesOf.class, LenientWhereThereIsSome.class)
                .addMixIn(lane.reading.SettlingOf.class, LenientWhereThereIsSome.class)
                .addMixIn(lane.reading.PeriodsOf.class, LenientWhereThereIsSome.class)
                .addMixIn(lane.reading.LoadOf.class, FramedMixIn.class)
                .addMixIn(lane.reading.VectorOf.class, FramedMixIn.class)
                .addMixIn(lane.reading.TensorOf.class, FramedMixIn.class)
                .addMixIn(lane.reading.BalanceOf.class, BalanceMixIn.class)
                .addMixIn(lane.reading.BalanceOf.Against.class, AgainstMixIn.class)
                .addMixIn(lane.reading.PairOf.class, Lenient.class)
                .addMixIn(lane.reading.ExtentOf.class, Lenient.class)
                .addMixIn(lane.reading.JumpOf.class, Lenient.class)
                .addMixIn(Enclosing.class, WhereThereIsSome.class)
                .addMixIn(Points.class, PointsMixIn.class)
                .addMixIn(CutCurve.class, CutCurveMixIn.class)
                .addMixIn(Recipe.class, RecipeMixIn.class)
                .addMixIn(Recipe.Lines.class, RecipeLinesMixIn.class)
                .addMixIn(Frame.Attitude.class, AttitudeKinds.class)
                .addMixIn(Abscissa.class, AbscissaMixIn.class)
                .addMixIn(Study.class, StudyMixIn.class)
                .addMixIn(Pictures.class, PicturesMixIn.class)
                .addMixIn(SavedView.class, WhereThereIsSome.class)
                .addMixIn(ChartLook.class, LookMixIn.class)
                .addMixIn(ChartLook.AxisLook.class, LookMixIn.class)
                .addMixIn(ChartLook.LaneLook.class, LookMixIn.class)
                .addMixIn(LedgerLook.class, WhereNotEmpty.class)
                .addMixIn(TableTemplate.class, TableMixIn.class)
                .addMixIn(TableTemplate.Column.class, TableMixIn.class)
                .addMixIn(TableTemplate.Order.class, TableMixIn.class)
                .addMixIn(Quantity.class, QuantityMixIn.class)
                .addMixIn(Within.class, WithinKinds.class)
                .addMixIn(Within.InBox.class, InBoxMixIn.class)
                .addMixIn(Sampling.class, SamplingKinds.class)
                .addMixIn(Ask.class, ByWord.class)
                .addMixIn(Rule.class, ByWord.class)
                .addMixIn(lane.check.AgainstDatum.class, AgainstDatumMixIn.class)
                .addMixIn(lane.check.Closure.class, AbsoluteMixIn.class)
                .addMixIn(lane.check.Trend.class, AbsoluteMixIn.class)
                .addMixIn(lane.check.Converges.class, AbsoluteMixIn.class)
                .addMixIn(lane.check.Doubts.class, WhereNotEmpty.class)
                .addMixIn(lane.check.Doubts.Input.class, WhereNotEmpty.class)
                .addMixIn(lane.check.Meeting.class, MeetingMixIn.class)
                .addMixIn(lane.check.Alignment.class, AlignmentMixIn.class)
                .addMixIn(lane.check.Decision.class, DecisionMixIn.class)
                .addMixIn(lane.measure.Statistic.class, StatisticMixIn.class)
                .addMixIn(lane.measure.Heat.class, HeatMixIn.class)
                .addMixIn(lane.measure.Newtonian.class, HeatMixIn.class)
                .addMixIn(lane.measure.Loads.class, LenientWhereThereIsSome.class)
                .addModule(Flat.module())
                .addMixIn(Measure.class, ByWord.class)
                .addMixIn(lane.reference.ColumnUncertainty.class, UncertaintyMixIn.class)
                .addMixIn(TimeSelector.class, MomentKinds.class)
                .addMixIn(PartEdit.class, PartEditKinds.class)
                .addMixIn(Curve.class, CurveKinds.class);
    }

    @JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "kind")
    @JsonSubTypes({
        @Type(name = "run", value = Source.Simulation.class),
        @Type(name = "reference", value = Source.Reference.class)
    })
    private interface SourceKinds {}

    @JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "kind")
    @JsonSubTypes({
        @Type(name = "all", value = Within.All.class),
        @Type(name = "box", value = Within.InBox.class),
        @Type(name = "cylinder", value = Within.Cylinder.class),
        @Type(name = "ball", value = Within.Ball.class),
        @Type(name = "touching", value = Within.Touching.class),
        @Type(name = "above", value = Within.Above.class)
    })
    private interface WithinKinds {}

    @JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "kind")
    @JsonSubTypes({
        @Type(name = "even", value = Sampling.Even.class),
        @Type(name = "clustered", value = Sampling.Clustered.class),
        @Type(name = "cell-exact", value = Sampling.CellExact.class)
    })
    private interface SamplingKinds {}

    /** Kinds that are services: their words are registered when the mapper is made. */
    @JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "kind")
    private interface ByWord {}

    @JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "kind")
    @JsonSubTypes({
        @Type(name = "formula", value = Curve.ByFormula.class), @Type(name = "columns", value = Curve.Columns.class),
        @Type(name = "window-mean", value = Curve.WindowMean.class), @Type(name = "hand", value = Curve.HandValue.class)
    })
    private interface CurveKinds {}

    @JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "kind")
    @JsonSubTypes({
        @Type(name = "last", value = TimeSelector.Last.class),
        @Type(name = "first", value = TimeSelector.First.class),
        @Type(name = "at", value = TimeSelector.At.class)
    })
    private interface MomentKinds {}

    @JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "kind")
    @JsonSubTypes({
        @Type(name = "rename", value = PartEdit.Rename.class),
        @Type(name = "merge", value = PartEdit.Merge.class),
        @Type(name = "split", value = PartEdit.Split.class),
        @Type(name = "role", value = PartEdit.Assign.class)
    })
    private interface PartEditKinds {}

    @JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "kind")
    @JsonSubTypes({
        @Type(name = "turned", value = Frame.Attitude.Turned.class),
        @Type(name = "directed", value = Frame.Attitude.Directed.class)
    })
    private interface AttitudeKinds {}

    /** What is left out by most studies is not written. */
    @JsonInclude(JsonInclude.Include.NON_NULL)
    private interface WhereThereIsSome {}

    @JsonPropertyOrder({"version", "name"})
    @SuppressWarnings({"UnusedVariable", "UnusedMethod", "DoNotCallSuggester"})
    private abstract static class StudyMixIn {
        /** Lists that are left out are empty. */
        @JsonCreator
        static Study of(
                @JsonProperty("name") String name,
                @JsonProperty("settings") Settings settings,
                @JsonProperty("sources") List<Source> sources,
                @JsonProperty("quantities") List<Quantity> quantities,
                @JsonProperty("frames") List<Frame> frames,
                @JsonProperty("stations") List<Station> stations,
                @JsonProperty("readings") List<Reading> readings,
                @JsonProperty("checks") List<Check> checks,
                @JsonProperty("pictures") Pictures pictures) {
            throw new IllegalStateException("only its signature is looked at");
        }

        @JsonProperty(access = JsonProperty.Access.READ_ONLY)
        abstract int version();

        @JsonInclude(JsonInclude.Include.NON_EMPTY)
        abstract Keyed<Frame> frames();
    }

    @SuppressWarnings({"UnusedVariable", "UnusedMethod", "DoNotCallSuggester"})
    private abstract static class PicturesMixIn {
        @JsonInclude(JsonInclude.Include.NON_EMPTY)
        abstract List<SavedView> views();

        @JsonInclude(JsonInclude.Include.NON_EMPTY)
        abstract List<PictureNote> notes();

        @JsonInclude(JsonInclude.Include.NON_EMPTY)
        abstract List<ChartLook> charts();

        @JsonInclude(value = JsonInclude.Include.CUSTOM, valueFilter = Usual.class)
        abstract LedgerLook ledger();
    }

    /** Finds what is as usual, which is left out. */
    private static final class Usual {
        @Override
        public boolean equals(@Nullable Object other) {
            return other == null || other.equals(LedgerLook.USUAL);
        }

        @Override
        public int hashCode() {
            return LedgerLook.USUAL.hashCode();
        }
    }

    /** What is as usual may be left out. */
    @JsonInclude(JsonInclude.Include.NON_EMPTY)
    @SuppressWarnings("UnusedMethod")
    private abstract static class TableMixIn {
        @JsonSetter(nulls = Nulls.AS_EMPTY)
        @JsonInclude(JsonInclude.Include.NON_DEFAULT)
        abstract int digits();

        @JsonSetter(nulls = Nulls.AS_EMPTY)
        @JsonInclude(JsonInclude.Include.NON_DEFAULT)
        abstract int rows();

        @JsonSetter(nulls = Nulls.AS_EMPTY)
        abstract boolean descending();

        @JsonInclude(value = JsonInclude.Include.CUSTOM, valueFilter = OfStudy.class)
        abstract TableTemplate.Order order();
    }

    /** Finds the order that lines have anyway. */
    private static final class OfStudy {
        @Override
        public boolean equals(@Nullable Object other) {
            return other == null || other.equals(TableTemplate.Order.OF_STUDY);
        }

        @Override
        public int hashCode() {
            return TableTemplate.Order.OF_STUDY.hashCode();
        }
    }

    /** What is as usual may be left out. */
    @JsonInclude(JsonInclude.Include.NON_NULL)
    @SuppressWarnings("UnusedMethod")
    private abstract static class LookMixIn {
        @JsonSetter(nulls = Nulls.AS_EMPTY)
        abstract boolean reversed();

        @JsonSetter(nulls = Nulls.AS_EMPTY)
        abstract boolean shared();

        @JsonSetter(nulls = Nulls.AS_EMPTY)
        abstract double width();
    }

    /** A quantity may also be told by a field and what is taken of it. */
    @SuppressWarnings({"UnusedVariable", "UnusedMethod", "DoNotCallSuggester"})
    private abstract static class QuantityMixIn {
        @JsonCreator
        static Quantity read(
                @JsonProperty("id") String id,
                @JsonProperty("name") String name,
                @JsonProperty("formula") String formula,
                @JsonProperty("field") String field,
                @JsonProperty("take") Component take,
                @JsonProperty("unit") String unit,
                @JsonProperty("note") String note) {
            throw new IllegalStateException("only its signature is looked at");
        }
    }

    /** Numbers and flags that are 0 and false where they are left out. */
    private abstract static class Lenient {
        @JsonSetter(nulls = Nulls.AS_EMPTY)
        abstract boolean cylindrical();

        @JsonSetter(nulls = Nulls.AS_EMPTY)
        abstract boolean own();

        @JsonSetter(nulls = Nulls.AS_EMPTY)
        abstract double seam();

        @JsonSetter(nulls = Nulls.AS_EMPTY)
        abstract boolean sampled();

        @JsonSetter(nulls = Nulls.AS_EMPTY)
        abstract double ring();

        @JsonSetter(nulls = Nulls.AS_EMPTY)
        abstract int samples();

        @JsonSetter(nulls = Nulls.AS_EMPTY)
        abstract double share();

        @JsonSetter(nulls = Nulls.AS_EMPTY)
        abstract double at();

        @JsonSetter(nulls = Nulls.AS_EMPTY)
        abstract int count();

        @JsonSetter(nulls = Nulls.AS_EMPTY)
        abstract int number();

        @JsonSetter(nulls = Nulls.AS_EMPTY)
        abstract double threshold();

        @JsonSetter(nulls = Nulls.AS_EMPTY)
        abstract int most();

        @JsonSetter(nulls = Nulls.AS_EMPTY)
        abstract double window();

        @JsonSetter(nulls = Nulls.AS_EMPTY)
        abstract double tolerance();

        @JsonSetter(nulls = Nulls.AS_EMPTY)
        abstract int batches();
    }

    @JsonInclude(JsonInclude.Include.NON_NULL)
    private abstract static class LenientWhereThereIsSome extends Lenient {}

    /** What is empty is not written. */
    @JsonInclude(JsonInclude.Include.NON_EMPTY)
    private abstract static class WhereNotEmpty {}

    @SuppressWarnings("UnusedMethod")
    private abstract static class AgainstDatumMixIn {
        @JsonInclude(JsonInclude.Include.NON_EMPTY)
        abstract List<lane.check.Demand> also();

        @JsonInclude(JsonInclude.Include.NON_EMPTY)
        abstract lane.check.@Nullable Meeting how();

        @JsonInclude(JsonInclude.Include.NON_EMPTY)
        abstract String other();
    }

    /** A tolerance is a share unless it is said. */
    @SuppressWarnings("UnusedMethod")
    private abstract static class AbsoluteMixIn {
        @JsonSetter(nulls = Nulls.AS_EMPTY)
        abstract boolean absolute();
    }

    @SuppressWarnings("UnusedMethod")
    private abstract static class MeetingMixIn {
        @JsonSetter(nulls = Nulls.AS_EMPTY)
        abstract int samples();
    }

    @JsonInclude(JsonInclude.Include.NON_NULL)
    @SuppressWarnings("UnusedMethod")
    private abstract static class AlignmentMixIn {
        @JsonSetter(nulls = Nulls.AS_EMPTY)
        abstract double shift();

        @JsonSetter(nulls = Nulls.AS_EMPTY)
        abstract boolean reverse();

        @JsonSetter(nulls = Nulls.AS_EMPTY)
        abstract boolean normalise();

        @JsonSetter(nulls = Nulls.AS_EMPTY)
        abstract boolean fit();
    }

    @SuppressWarnings("UnusedMethod")
    private abstract static class DecisionMixIn {
        @JsonSetter(nulls = Nulls.AS_EMPTY)
        abstract boolean accepted();
    }

    /** Cells count whole unless it is said. */
    @SuppressWarnings("UnusedMethod")
    private abstract static class InBoxMixIn {
        @JsonSetter(nulls = Nulls.AS_EMPTY)
        @JsonInclude(JsonInclude.Include.NON_DEFAULT)
        abstract boolean cut();
    }

    /** What is not said is not written. */
    @SuppressWarnings({"UnusedMethod", "UnusedVariable"})
    private abstract static class BalanceMixIn {
        @JsonInclude(value = JsonInclude.Include.CUSTOM, valueFilter = Unsaid.class)
        abstract lane.reading.Conserved conserved();

        @JsonInclude(value = JsonInclude.Include.CUSTOM, valueFilter = Unsaid.class)
        abstract lane.reading.BalanceOf.Against against();
    }

    @SuppressWarnings("UnusedMethod")
    private abstract static class StatisticMixIn extends Lenient {
        @JsonInclude(value = JsonInclude.Include.CUSTOM, valueFilter = Unsaid.class)
        abstract lane.measure.By values();
    }

    @SuppressWarnings("UnusedMethod")
    private abstract static class AgainstMixIn {
        @JsonSetter(nulls = Nulls.AS_EMPTY)
        abstract double value();
    }

    /** Equal to what is meant where nothing is written. */
    @SuppressWarnings({"EqualsHashCode", "EqualsWhichDoesntCheckParameterClass"})
    private static final class Unsaid {
        @Override
        public boolean equals(Object other) {
            return other == null
                    || other == lane.reading.Conserved.UNSAID
                    || other == lane.measure.By.QUADRATURE
                    || lane.reading.BalanceOf.Against.LARGEST.equals(other);
        }

        @Override
        public int hashCode() {
            return 0;
        }
    }

    /** What stands in a frame: which is written, where it stands is not. */
    @JsonIgnoreProperties("placed")
    @SuppressWarnings("UnusedMethod")
    private abstract static class FramedMixIn extends LenientWhereThereIsSome {
        @JsonInclude(JsonInclude.Include.NON_EMPTY)
        abstract String frame();

        @JsonSetter(nulls = Nulls.AS_EMPTY)
        abstract boolean integral();
    }

    /** No number where a quantity is the conductivity, or the viscosity. */
    private abstract static class HeatMixIn {
        @JsonSetter(nulls = Nulls.AS_EMPTY)
        abstract double value();
    }

    /** Lines that are not told are found out. */
    @SuppressWarnings({"UnusedVariable", "UnusedMethod", "DoNotCallSuggester"})
    private abstract static class RecipeLinesMixIn {
        @JsonCreator
        static Recipe.Lines read(
                @JsonProperty("header") Integer header,
                @JsonProperty("units") Integer units,
                @JsonProperty("data") Integer data) {
            throw new IllegalStateException("only its signature is looked at");
        }
    }

    /** What a recipe leaves out is found out from the file. */
    @SuppressWarnings({"UnusedVariable", "UnusedMethod", "DoNotCallSuggester"})
    private abstract static class RecipeMixIn {
        @JsonCreator
        static Recipe read(
                @JsonProperty("kind") String kind,
                @JsonProperty("file") String file,
                @JsonProperty("encoding") String encoding,
                @JsonProperty("separator") String separator,
                @JsonProperty("decimal") String decimal,
                @JsonProperty("sheet") String sheet,
                @JsonProperty("skip") Integer skip,
                @JsonProperty("headers") Integer headers,
                @JsonProperty("lines") Recipe.Lines lines,
                @JsonProperty("missing") List<String> missing,
                @JsonProperty("columns") List<Recipe.Column> columns) {
            throw new IllegalStateException("only its signature is looked at");
        }

        @JsonInclude(JsonInclude.Include.NON_EMPTY)
        abstract String file();

        @JsonInclude(JsonInclude.Include.NON_EMPTY)
        abstract List<String> missing();
    }

    @SuppressWarnings({"UnusedVariable", "UnusedMethod", "DoNotCallSuggester"})
    private abstract static class CutCurveMixIn {
        @JsonInclude(JsonInclude.Include.NON_EMPTY)
        abstract List<Double> offsets();

        @JsonSetter(nulls = Nulls.AS_EMPTY)
        abstract int branch();
    }

    @JsonInclude(JsonInclude.Include.NON_NULL)
    @SuppressWarnings({"UnusedVariable", "UnusedMethod", "DoNotCallSuggester"})
    private abstract static class PointsMixIn {
        @JsonInclude(JsonInclude.Include.NON_EMPTY)
        abstract List<lane.station.Points.Beside> beside();

        @JsonInclude(JsonInclude.Include.NON_EMPTY)
        abstract String against();
    }

    @SuppressWarnings({"UnusedVariable", "UnusedMethod", "DoNotCallSuggester"})
    private abstract static class AroundMixIn extends Lenient {
        @JsonInclude(JsonInclude.Include.NON_EMPTY)
        abstract List<Double> angles();

        @JsonInclude(JsonInclude.Include.NON_EMPTY)
        abstract List<Double> positions();
    }

    /** An abscissa is a word, or a formula after an equals sign. */
    @SuppressWarnings({"UnusedVariable", "UnusedMethod", "DoNotCallSuggester"})
    private abstract static class AbscissaMixIn {
        @JsonCreator(mode = JsonCreator.Mode.DELEGATING)
        static Abscissa parse(String text) {
            throw new IllegalStateException("only its signature is looked at");
        }

        @JsonValue
        abstract String text();
    }

    /** A column's name alone is enough for an uncertainty. */
    @SuppressWarnings({"UnusedVariable", "UnusedMethod", "DoNotCallSuggester"})
    private abstract static class UncertaintyMixIn {
        @com.fasterxml.jackson.annotation.JsonCreator(
                mode = com.fasterxml.jackson.annotation.JsonCreator.Mode.DELEGATING)
        static lane.reference.ColumnUncertainty of(String column) {
            throw new IllegalStateException("only its signature is looked at");
        }
    }

    /** A reference is drawn as theory or measurement; "kind" already tells it from a run. */
    private abstract static class ReferenceMixIn {
        @JsonProperty("drawn")
        abstract Source.Kind kind();
    }
}
