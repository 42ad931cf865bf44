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
import com.fasterxml.jackson.core.JacksonException;
import com.fasterxml.jackson.core.StreamReadFeature;
import com.fasterxml.jackson.core.json.JsonReadFeature;
import com.fasterxml.jackson.databind.DeserializationFeature;
import com.fasterxml.jackson.databind.JsonMappingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.MapperFeature;
import com.fasterxml.jackson.databind.SerializationFeature;
import com.fasterxml.jackson.databind.cfg.CoercionAction;
import com.fasterxml.jackson.databind.cfg.CoercionInputShape;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.jsontype.NamedType;
import com.fasterxml.jackson.databind.node.ObjectNode;
import com.fasterxml.jackson.databind.type.LogicalType;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import lane.base.Fault;
import lane.base.LaneException;
import lane.base.Plain;
import lane.check.Check;
import lane.check.Rule;
import lane.check.RuleKind;
import lane.field.PartEdit;
import lane.field.TimeSelector;
import lane.formats.io.AtomicFile;
import lane.formats.io.FileHash;
import lane.formats.io.FileStamp;
import lane.measure.Measure;
import lane.measure.MeasureKind;
import lane.quantity.Component;
import lane.quantity.Quantity;
import lane.reading.AroundOf;
import lane.reading.Ask;
import lane.reading.AskKind;
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
import lane.station.ShapeKind;
import lane.station.Sheet;
import lane.station.Shell;
import lane.station.Station;
import lane.station.Sweep;
import lane.station.Within;
import lane.study.Keyed;
import lane.study.PictureNote;
import lane.study.Pictures;
import lane.study.SavedView;
import lane.study.Settings;
import lane.study.Source;
import lane.study.Study;

/**
 * The study as JSON: stable order, one schema version, described by docs/study.schema.json so that a study can be
 * written by hand or by a script. Texts and lists that are left out are taken as empty.
 */
public final class StudyJson {
    private static final long MOST_BYTES = 64L << 20;

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
    }

    @JsonInclude(JsonInclude.Include.NON_NULL)
    private abstract static class LenientWhereThereIsSome extends Lenient {}

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

    private static final JsonMapper MAPPER = JsonMapper.builder()
            .enable(SerializationFeature.INDENT_OUTPUT)
            .enable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES)
            .enable(DeserializationFeature.FAIL_ON_NULL_FOR_PRIMITIVES)
            .enable(DeserializationFeature.FAIL_ON_NUMBERS_FOR_ENUMS)
            .enable(StreamReadFeature.STRICT_DUPLICATE_DETECTION)
            .disable(DeserializationFeature.ACCEPT_FLOAT_AS_INT)
            .disable(MapperFeature.ALLOW_COERCION_OF_SCALARS)
            .withCoercionConfig(LogicalType.Textual, c -> c.setCoercion(CoercionInputShape.Integer, CoercionAction.Fail)
                    .setCoercion(CoercionInputShape.Float, CoercionAction.Fail)
                    .setCoercion(CoercionInputShape.Boolean, CoercionAction.Fail))
            .enable(MapperFeature.ACCEPT_CASE_INSENSITIVE_ENUMS)
            .enable(JsonReadFeature.ALLOW_JAVA_COMMENTS)
            .withCoercionConfig(LogicalType.Enum, c -> c.setCoercion(CoercionInputShape.Integer, CoercionAction.Fail))
            .withConfigOverride(String.class, o -> o.setSetterInfo(JsonSetter.Value.forValueNulls(Nulls.AS_EMPTY)))
            .withConfigOverride(List.class, o -> o.setSetterInfo(JsonSetter.Value.forValueNulls(Nulls.AS_EMPTY)))
            .withConfigOverride(Map.class, o -> o.setSetterInfo(JsonSetter.Value.forValueNulls(Nulls.AS_EMPTY)))
            .addMixIn(Source.class, SourceKinds.class)
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
            .addMixIn(Quantity.class, QuantityMixIn.class)
            .addMixIn(Within.class, WithinKinds.class)
            .addMixIn(Within.InBox.class, InBoxMixIn.class)
            .addMixIn(Sampling.class, SamplingKinds.class)
            .addMixIn(Ask.class, ByWord.class)
            .addMixIn(Rule.class, ByWord.class)
            .addMixIn(lane.measure.Statistic.class, StatisticMixIn.class)
            .addMixIn(lane.measure.Heat.class, HeatMixIn.class)
            .addMixIn(lane.measure.Newtonian.class, HeatMixIn.class)
            .addMixIn(lane.measure.Loads.class, LenientWhereThereIsSome.class)
            .addModule(Flat.module())
            .addMixIn(Measure.class, ByWord.class)
            .addMixIn(lane.reference.ColumnUncertainty.class, UncertaintyMixIn.class)
            .addMixIn(TimeSelector.class, MomentKinds.class)
            .addMixIn(PartEdit.class, PartEditKinds.class)
            .addMixIn(Curve.class, CurveKinds.class)
            .build();

    static {
        AskKind.ALL.all().forEach(k -> MAPPER.registerSubtypes(new NamedType(k.type(), k.word())));
        ShapeKind.ALL.all().forEach(k -> MAPPER.registerSubtypes(new NamedType(k.type(), k.word())));
        MeasureKind.ALL.all().forEach(k -> MAPPER.registerSubtypes(new NamedType(k.type(), k.word())));
        RuleKind.ALL.all().forEach(k -> MAPPER.registerSubtypes(new NamedType(k.type(), k.word())));
    }

    private static final Pattern KEY = Pattern.compile("[\\p{L}\\p{N}_][\\p{L}\\p{N}\\p{M} ._+-]{0,119}");

    private StudyJson() {}

    /** A reference is drawn as theory or measurement; "kind" already tells it from a run. */
    private abstract static class ReferenceMixIn {
        @JsonProperty("drawn")
        abstract Source.Kind kind();
    }

    public static String text(Study study) {
        try {
            return MAPPER.writeValueAsString(study) + "\n";
        } catch (JacksonException e) {
            throw new IllegalStateException("a study can always be written", e);
        }
    }

    /** Writes the study atomically. */
    public static void save(Study study, Path file) {
        AtomicFile.write(file, text(study));
    }

    /** @throws LaneException with the place in the file when it is no study of this version */
    public static Study load(Path file) {
        try {
            if (FileStamp.of(file).size() > MOST_BYTES) {
                throw new LaneException(
                        "The study " + file + " is larger than 64 MB; a study holds definitions, not data.");
            }
            return of(Files.readString(file), file.toString());
        } catch (IOException e) {
            throw FileHash.unreadable(file, e);
        }
    }

    /** @param where named in errors */
    public static Study of(String text, String where) {
        String file = Plain.line(where);
        JsonNode tree;
        try {
            tree = MAPPER.reader()
                    .with(DeserializationFeature.FAIL_ON_TRAILING_TOKENS)
                    .readTree(text);
        } catch (JacksonException e) {
            throw StudyFault.of(e, file);
        }
        if (!tree.isObject()) {
            throw new LaneException(
                    Fault.DAMAGED, "The study " + file + " is no study: an object { … } belongs there.");
        }
        StudyFault.numbers(tree, "", file);
        JsonNode given = tree.path("version");
        int version = given.isIntegralNumber() ? given.asInt(-1) : -1;
        if (version >= 1 && version < Study.VERSION && tree instanceof ObjectNode root) {
            Migration.toNewest(root, version);
        } else if (version != Study.VERSION) {
            throw new LaneException("The study " + file
                    + (given.isMissingNode() ? " gives no version" : " has version " + Plain.quoted(given.asText()))
                    + "; this program reads versions 1 to " + Study.VERSION + ".");
        }
        try {
            Study study = MAPPER.treeToValue(tree, Study.class);
            Complete.check(study, "", file);
            keys(study, file);
            return study;
        } catch (JsonMappingException e) {
            throw StudyFault.of(e, tree, file);
        } catch (JacksonException e) {
            throw StudyFault.of(e, file);
        }
    }

    /** Keys name files and places in messages, so they hold nothing that acts there. */
    private static void keys(Study study, String where) {
        Stream.of(
                        study.sources().keys(),
                        study.quantities().keys(),
                        study.frames().keys(),
                        study.stations().keys(),
                        study.readings().keys(),
                        study.checks().keys())
                .flatMap(List::stream)
                .filter(k -> !KEY.matcher(k).matches())
                .findFirst()
                .ifPresent(k -> {
                    throw new LaneException(
                            Fault.DAMAGED,
                            "The study " + where + " has the id " + Plain.quoted(k)
                                    + "; an id is of letters, digits, spaces, hyphens, dots, pluses and underlines, begins with a"
                                    + " letter, digit or underline and has at most 120 of them.");
                });
    }
}
