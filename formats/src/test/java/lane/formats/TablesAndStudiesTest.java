package lane.formats;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.fasterxml.jackson.databind.json.JsonMapper;
import com.networknt.schema.JsonSchemaFactory;
import com.networknt.schema.SpecVersion;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import lane.base.LaneException;
import lane.base.Work;
import lane.check.Check;
import lane.check.Closure;
import lane.check.Norm;
import lane.check.Scale;
import lane.field.Field;
import lane.field.PartEdit;
import lane.field.Role;
import lane.field.TimeSelector;
import lane.field.Treatment;
import lane.field.Turn;
import lane.field.Values;
import lane.formats.io.AtomicFile;
import lane.formats.io.FileHash;
import lane.formats.ledger.LedgerWriter;
import lane.formats.ledger.Made;
import lane.formats.study.StudyJson;
import lane.formats.table.TableReader;
import lane.formats.vtk.VtkXmlWriter;
import lane.measure.Area;
import lane.measure.Extreme;
import lane.measure.Flow;
import lane.measure.Flow.Carried;
import lane.measure.Force;
import lane.measure.Integral;
import lane.measure.Loads;
import lane.measure.Loads.On;
import lane.measure.Mean;
import lane.measure.Moment;
import lane.measure.Value;
import lane.measure.WeightedMean;
import lane.mesh.Axis;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.mesh.Point;
import lane.quantity.Component;
import lane.quantity.FieldUnit;
import lane.quantity.Quantity;
import lane.reading.AroundOf;
import lane.reading.AroundOf.Along;
import lane.reading.BalanceOf;
import lane.reading.BalanceOf.Term;
import lane.reading.FeatureOf;
import lane.reading.ProfileOf;
import lane.reading.Reading;
import lane.reading.SweepOf;
import lane.reading.TallyOf;
import lane.reference.ColumnUncertainty;
import lane.reference.Curve;
import lane.reference.Recipe;
import lane.reference.Table;
import lane.station.Abscissa;
import lane.station.Arc;
import lane.station.Box;
import lane.station.CutCurve;
import lane.station.CutCurve.Extent;
import lane.station.Enclosing;
import lane.station.Facing;
import lane.station.Frame;
import lane.station.Isosurface;
import lane.station.Line;
import lane.station.OnPart;
import lane.station.Points;
import lane.station.Polyline;
import lane.station.Region;
import lane.station.Sampling;
import lane.station.Section;
import lane.station.Sheet;
import lane.station.Shell;
import lane.station.Station;
import lane.station.Sweep;
import lane.station.Within;
import lane.study.ChartLook;
import lane.study.Evaluator;
import lane.study.Pictures;
import lane.study.Settings;
import lane.study.Source;
import lane.study.Study;
import lane.unit.Unit;
import lane.unit.UnitSystem;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class TablesAndStudiesTest {
    @TempDir
    Path folder;

    private Table csv(String text, Charset charset) throws Exception {
        Path file = folder.resolve("t.csv");
        Files.writeString(file, text, charset);
        return TableReader.read(file, "t.csv");
    }

    private Table csv(String text) throws Exception {
        return csv(text, StandardCharsets.UTF_8);
    }

    @Test
    void separatorsDecimalMarksUnitsAndGapsAreFound() throws Exception {
        Table point = csv("# a comment\nradius [mm],T (degC),\"name, long\"\n1.5,20,3\n2.5,,-4e2\n");
        assertThat(point.headers()).containsExactly("radius", "T", "name, long");
        assertThat(point.units()).containsExactly("mm", "degC", "");
        assertThat(point.column("T")).containsExactly(20, Double.NaN);
        assertThat(point.column("name, long")).containsExactly(3, -400);
        Table comma = csv("Prüfstand Öl\nZeit;Moment\ns;mN m\n0,5;1,25\n1,0;-\n", StandardCharsets.ISO_8859_1);
        assertThat(comma.headers()).containsExactly("Zeit", "Moment");
        assertThat(comma.units()).containsExactly("s", "mN m");
        assertThat(comma.column("Zeit")).containsExactly(0.5, 1);
        assertThat(comma.recipe())
                .contains("semicolon")
                .contains("decimal comma")
                .contains("units in line 3");
        assertThat(csv("1\t2\n3\t4\n").headers()).containsExactly("column 1", "column 2");
        assertThat(csv("\uFEFFx,x\n1,2\n").headers()).containsExactly("x", "x 2");
    }

    @Test
    void aTableIsKeptUntilItsFileChanges() throws Exception {
        Files.writeString(folder.resolve("log.csv"), "t,p\n0,1\n");
        var library = new FileLibrary(folder);
        Table first = library.table("log.csv", List.of());
        assertThat(library.table("log.csv", List.of())).isSameAs(first);
        Files.writeString(folder.resolve("log.csv"), "1,2\n", java.nio.file.StandardOpenOption.APPEND);
        assertThat(library.table("log.csv", List.of()).column("p")).containsExactly(1, 2);
    }

    @Test
    void tablesAsTheyReallyCome() throws Exception {
        Table spaced = csv("% made up\n% x   y   z\n  1.0   2.5e-1   -3\n  2.0   nan      4D2\n");
        assertThat(spaced.headers()).containsExactly("x", "y", "z");
        assertThat(spaced.column("z")).containsExactly(-3, 400);
        assertThat(spaced.column("y")).containsExactly(0.25, Double.NaN);
        assertThat(spaced.recipe()).contains("space between columns");
        Table wide = csv("Zeit;Kraft\n0;1.234,5\n1;-12.345.678,25\n");
        assertThat(wide.column("Kraft")).containsExactly(1234.5, -12345678.25);
        Table marks = csv("t;N\n0;1,234.5\n1;12,345\n");
        assertThat(marks.column("N")).containsExactly(1234.5, 12345);
        assertThat(csv("t\tN\n0\t1'234.5\n1\t2\u00a0000\n").column("N")).containsExactly(1234.5, 2000);
        for (Charset set : List.of(StandardCharsets.UTF_16, StandardCharsets.UTF_16LE)) {
            Table utf = csv("Größe [mm]\tp\n1,5\t2\n", set);
            assertThat(utf.headers()).containsExactly("Größe", "p");
            assertThat(utf.column("Größe")).containsExactly(1.5);
        }
        assertThat(csv("a,b\r\n1,2\r\n3,4\r\n").column("b")).containsExactly(2, 4);
        assertThat(csv("// note\na b\n1 2\n3 4\n").headers()).containsExactly("a", "b");
    }

    @Test
    void wrongTablesGetOneClearSentence() throws Exception {
        assertThatThrownBy(() -> csv("")).isInstanceOf(LaneException.class).hasMessageContaining("empty");
        assertThatThrownBy(() -> csv("a,b\nc,d\n")).hasMessageContaining("no row of numbers");
        assertThatThrownBy(() -> csv("t;p\n0;1,5\n1;2.5\n"))
                .hasMessageContaining("two decimal marks")
                .hasMessageContaining("\"1,5\" in line 2")
                .hasMessageContaining("\"2.5\" in line 3");
        assertThatThrownBy(() -> TableReader.read(folder.resolve("no.csv"), "no.csv"))
                .hasMessageContaining("does not exist");
    }

    /** A study with one of everything. */
    /** The same with frames, views, notes and what stands in or around others. */
    static Study framed() {
        Point a = new Point(0.1, 0.2, 0.3);
        return study().withFrames(l -> {
                    l.add(new Frame(
                            "f",
                            "frame",
                            "",
                            a,
                            new Frame.Attitude.Turned(List.of(new Frame.Rotation("z", 30)), true),
                            true,
                            "from a part"));
                    l.add(new Frame(
                            "g", "other", "f", a, new Frame.Attitude.Directed(a, new Point(1, 0, 0)), false, ""));
                    return l;
                })
                .withStations(l -> {
                    l.add(new Station("around", "around", new Enclosing("region")));
                    l.add(new Station(
                            "many", "many", new CutCurve(a, a, List.of(), Extent.LENGTH, a, 0, List.of(0.1, 0.2))));
                    l.add(new Station(
                            "formula",
                            "f",
                            new Line(a, new Point(1, 1, 1), new Sampling.Even(3), Abscissa.of("s / length"))));
                    return l;
                })
                .inFrame("formula", "g")
                .withViews(l -> {
                    l.add(new lane.study.SavedView("front", a, 0.1, 0.2, 0.3, "t"));
                    return l;
                })
                .withNotes(l -> {
                    l.add(new lane.study.PictureNote("n", "words", "", a));
                    return l;
                });
    }

    @Test
    void framesViewsAndNotesComeBackAsTheyWere() {
        assertThat(StudyJson.of(StudyJson.text(framed()), "here")).isEqualTo(framed());
        assertThat(StudyJson.text(study())).doesNotContain("frames", "views", "offsets");
    }

    static Study study() {
        var loads = new Loads("p", 5, "tau", On.FLUID, On.WALL);
        Point a = new Point(0.1, 0.2, 0.3);
        return Study.of(
                "all kinds",
                new Settings(
                        "theory",
                        List.of("rig"),
                        new Axis(a, new Point(0, 3, 4)),
                        new TimeSelector.At(0.25, 1e-3),
                        List.of(new FieldUnit("p", "Pa", true)),
                        List.of(new Recipe(
                                "r;p",
                                "rake_*.csv",
                                "Latin-1",
                                "semicolon",
                                "comma",
                                "",
                                1,
                                2,
                                new Recipe.Lines(3, -1, 5),
                                List.of("-999"),
                                List.of(new Recipe.Column("p", "bar", Recipe.Role.VALUE))))),
                List.of(
                        new Source.Simulation(
                                "run",
                                "run",
                                "a b/ü.vtu",
                                List.of("p/wall.vtp"),
                                "region",
                                "family",
                                new Treatment(
                                        new TimeSelector.First(),
                                        "mm",
                                        UnitSystem.MM_N_TONNE,
                                        Map.of("p", "MPa"),
                                        Map.of("u", List.of(2, 0, 1)),
                                        Map.of("tau", false),
                                        2.5,
                                        new Turn("x", "z"),
                                        List.of(
                                                new PartEdit.Split("wall", 30),
                                                new PartEdit.Rename("wall 1", "rotor"),
                                                new PartEdit.Merge(List.of("wall 2", "wall 3"), "shell"),
                                                new PartEdit.Assign("rotor", Role.WALL)))),
                        new Source.Reference(
                                "theory",
                                "theory",
                                Source.Kind.THEORY,
                                List.of(),
                                Map.of("k", 0.1),
                                List.of(new Curve.ByFormula("profile", "k*r", "Pa"))),
                        new Source.Reference(
                                "rig",
                                "rig",
                                Source.Kind.MEASUREMENT,
                                List.of("t.csv"),
                                Map.of(),
                                List.of(
                                        new Curve.Columns(
                                                "profile", "t.csv", "r", "mm", "p", "", ColumnUncertainty.of("u")),
                                        new Curve.WindowMean("area", "t.csv", "p", "Pa", "t", 1, 2),
                                        new Curve.HandValue(
                                                "mean",
                                                3,
                                                "Pa",
                                                0.5,
                                                "by hand",
                                                "2*a",
                                                List.of(new Curve.Given("a", 1.5, "Pa", "read off")))))),
                List.of(
                        new Quantity("p", "pressure", "p", Component.ALL, "kPa"),
                        new Quantity("u", "u", "u", Component.SWIRL, "")),
                List.of(),
                List.of(
                        new Station(
                                "even",
                                "even",
                                new Line(a, new Point(1, 1, 1), new Sampling.Even(11), Abscissa.RADIUS)),
                        new Station(
                                "exact",
                                "exact",
                                new Line(a, new Point(1, 1, 1), new Sampling.CellExact(), Abscissa.ARC)),
                        new Station("wall", "wall", new OnPart("wall")),
                        new Station(
                                "walls",
                                "walls",
                                new OnPart("wall", List.of("lid"), new Facing(a, 30), new Box(a, new Point(1, 1, 1)))),
                        new Station(
                                "arc",
                                "arc",
                                new Arc(
                                        new Axis(a, new Point(1, 2, 3), new Point(0, 0, 1)),
                                        1,
                                        2,
                                        -30,
                                        90,
                                        new Sampling.Clustered(21, 5, Sampling.Towards.BOTH),
                                        Abscissa.ANGLE)),
                        new Station(
                                "poly",
                                "poly",
                                new Polyline(
                                        List.of(a, new Point(1, 0, 0), new Point(1, 1, 0)),
                                        new Sampling.Even(5),
                                        Abscissa.AXIAL)),
                        new Station("points", "points", new Points(List.of(a))),
                        new Station(
                                "taps",
                                "taps",
                                new Points(
                                        List.of(a),
                                        null,
                                        "rake.csv",
                                        List.of(new Points.Beside("chord", "mm", List.of(7.5))),
                                        "chord")),
                        new Station(
                                "cut", "cut", new Section(a, new Point(1, 1, 1), new Box(a, new Point(2, 2, 2)), a)),
                        new Station("cut2", "cut2", new Section(a, new Point(0.3, 0.1, 7), null, null)),
                        new Station("iso", "iso", new Isosurface("p", List.of(1.0, 2.5))),
                        new Station("shell", "shell", new Shell(Axis.Z, 0.03, null, 2.0, 45)),
                        new Station("sheet", "sheet", new Sheet("a ü/s.stl", "mm", a, new Point(0, 90, 0), true)),
                        new Station(
                                "curve",
                                "curve",
                                new CutCurve(
                                        a, new Point(0, 0, 1), List.of("wall"), Extent.SHARE, new Point(1, 0, 0), 2)),
                        new Station("sweep", "sweep", new Sweep(Axis.Z, 0, 1, 11, 0.2)),
                        new Station("all", "all", new Region(new Within.All())),
                        new Station("box", "box", new Region(new Within.InBox(new Box(a, new Point(1, 1, 1))))),
                        new Station("rod", "rod", new Region(new Within.Cylinder(Axis.Z, 1, 0, 2))),
                        new Station("ball", "ball", new Region(new Within.Ball(a, 1))),
                        new Station("near", "near", new Region(new Within.Touching(List.of("wall")))),
                        new Station("hot", "hot", new Region(new Within.Above("p", 3)))),
                List.of(
                        new Reading("w", "w", "bar", new SweepOf("sweep", new Extreme("p", true))),
                        new Reading("round", "round", "", new AroundOf("shell", "p", Along.LEAST, 36)),
                        new Reading(
                                "taps",
                                "taps",
                                "",
                                new AroundOf("shell", "p", Along.AT, 360, List.of(0.0, 45.0), "deg", List.of(0.1))),
                        new Reading("one", "one", "", new TallyOf(List.of(), new Value("p"))),
                        new Reading("cup", "cup", "", new TallyOf(List.of("cut"), new WeightedMean("p", "u"))),
                        new Reading("profile", "profile", "", new ProfileOf("even", "p")),
                        new Reading("area", "area", "mm2", new TallyOf(List.of("wall"), new Area())),
                        new Reading("mean", "mean", "", new TallyOf(List.of("wall"), new Mean("p"))),
                        new Reading("int", "int", "", new TallyOf(List.of("wall"), new Integral("p"))),
                        new Reading(
                                "force",
                                "force",
                                "N",
                                new TallyOf(List.of("wall"), new Force(loads, new Point(1, 0, 0)))),
                        new Reading("moment", "moment", "N m", new TallyOf(List.of("wall"), new Moment(loads, Axis.Z))),
                        new Reading(
                                "b",
                                "b",
                                "",
                                new BalanceOf(
                                        List.of(new Term(
                                                "t",
                                                -1,
                                                List.of("wall"),
                                                new Flow("u", 870, "kg/m3", Carried.ANGULAR_MOMENTUM, Axis.Z))),
                                        List.of("wall"),
                                        "in"))),
                List.of(new Check("c", "profile", Norm.LINF, Scale.ABSOLUTE, 0.1, "rig", List.of("run"))),
                Pictures.NONE);
    }

    @Test
    void aStudyIsTheSameAfterWritingAndReading() {
        Study s = study();
        String text = StudyJson.text(s);
        assertThat(StudyJson.of(text, "x")).isEqualTo(s);
        assertThat(StudyJson.text(StudyJson.of(text, "x"))).isEqualTo(text);
        StudyJson.save(s, folder.resolve("deep/er/s.lane.json"));
        assertThat(StudyJson.load(folder.resolve("deep/er/s.lane.json"))).isEqualTo(s);
        assertThat(folder.resolve("deep/er").toFile().list()).containsExactly("s.lane.json");
    }

    /** A study as version 1 wrote it: settings at the top, frames of stations in a list, checks without a kind. */
    @Test
    void aStudyOfVersionOneIsBroughtToTheFormOfToday() {
        Study s = StudyJson.of("""
                {"version": 1, "name": "tank", "datum": "rig", "off": ["old"], "time": {"kind": "first"},
                 "units": [{"field": "p", "unit": "kPa", "stated": true}],
                 "sources": [], "quantities": [],
                 "frames": [{"id": "f", "name": "lid", "parent": "", "origin": {"x": 0, "y": 0, "z": 2}, "cylindrical": false, "note": ""}],
                 "inFrame": {"tap": "f"},
                 "stations": [{"kind": "points", "id": "tap", "name": "Tap", "points": [{"x": 1, "y": 0, "z": 0}]},
                              {"kind": "part", "id": "lid", "name": "Lid", "part": "lid"}],
                 "readings": [{"kind": "balance", "id": "b", "name": "Mass", "terms": [], "closedBy": [], "positive": "in",
                               "unit": "kg/s"},
                              {"kind": "tally", "id": "t", "name": "Area", "stations": ["lid"],
                               "measure": {"kind": "area"}, "unit": ""}],
                 "checks": [{"id": "c1", "reading": "b", "norm": "L2", "scale": "MEAN", "tolerance": 0.01, "datum": "",
                             "judged": ["fine"]},
                            {"id": "c2", "reading": "b", "norm": "L2", "scale": "ABSOLUTE", "tolerance": 2, "datum": "",
                             "judged": []},
                            {"id": "c3", "reading": "t", "norm": "LINF", "scale": "RANGE", "tolerance": 0.5, "datum": "rig",
                             "judged": []}],
                 "views": [], "notes": [{"id": "n", "text": "here", "reading": "", "at": {"x": 0, "y": 0, "z": 0}}]}
                """, "old.lane.json");
        assertThat(s.version()).isEqualTo(Study.VERSION);
        assertThat(s.datum()).isEqualTo("rig");
        assertThat(s.off()).containsExactly("old");
        assertThat(s.units()).hasSize(1);
        assertThat(s.notes()).hasSize(1);
        assertThat(s.station("tap").orElseThrow().frame()).isEqualTo("f");
        assertThat(s.station("lid").orElseThrow().frame()).isEmpty();
        assertThat(s.checks())
                .containsExactly(
                        new Check("c1", "b", new Closure(0.01, false), List.of("fine")),
                        new Check("c2", "b", new Closure(2, true), List.of()),
                        new Check("c3", "t", Norm.LINF, Scale.RANGE, 0.5, "rig", List.of()));
        assertThat(StudyJson.of(StudyJson.text(s), "again")).isEqualTo(s);
    }

    @Test
    void aNumberOfACurveFromBeforeVersion3HoldsItsProfile() {
        Study s = StudyJson.of("""
                {"version": 2, "name": "tank", "readings": [{"kind": "feature", "id": "top", "name": "top",
                 "station": "rod", "quantity": "h", "what": "CROSSING", "at": 2, "levelUnit": "cm", "unit": "mm"}]}
                """, "old");
        assertThat(s.readings())
                .containsExactly(new Reading(
                        "top",
                        "top",
                        "mm",
                        new FeatureOf(new ProfileOf("rod", "h"), FeatureOf.What.CROSSING, 2, 1, "cm", "", null, null)));
        assertThat(StudyJson.of(StudyJson.text(s), "again")).isEqualTo(s);
    }

    @Test
    void howChartsAreDrawnComesBackAsItWas() throws Exception {
        ChartLook look = ChartLook.of("r")
                .x(a -> a.reversed(true).between(1.0, null).titled("round").in("mm"))
                .y(a -> a.by(ChartLook.Scale.LOG).sharing(true))
                .with(ChartLook.Strip.ERROR)
                .with(ChartLook.TextSize.SLIDE)
                .legendAt(new ChartLook.Spot(0.1, 0.2))
                .withNotes(List.of(new ChartLook.Note(1, 2, "here")))
                .lane("a", new ChartLook.LaneLook("#12ab34", ChartLook.Dash.LONG, 3))
                .below(List.of("other"));
        Study s = Study.empty("charts").with(look).with(ChartLook.of("usual"));
        assertThat(s.pictures().charts()).containsExactly(look);
        String text = StudyJson.text(s);
        assertThat(StudyJson.of(text, "x")).isEqualTo(s);
        assertThat(JsonSchemaFactory.getInstance(SpecVersion.VersionFlag.V202012)
                        .getSchema(Files.readString(Path.of("../docs/study.schema.json")))
                        .validate(new JsonMapper().readTree(text)))
                .isEmpty();
        // As usual again, nothing is kept.
        assertThat(s.with(ChartLook.of("r")).pictures().charts()).isEmpty();
        assertThatThrownBy(() -> StudyJson.of(text.replace("#12ab34", "teal"), "x"))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("charts[0]")
                .hasMessageContaining("#1f6f8b");
        String few =
                "{\"version\": 3, \"name\": \"x\", \"pictures\": {\"charts\": [{\"reading\": \"r\", \"y\": {\"scale\": \"LOG\"}}]}}";
        assertThat(StudyJson.of(few, "x").chart("r").y().scale()).isEqualTo(ChartLook.Scale.LOG);
    }

    @Test
    void theSchemaTakesWhatTheProgramWritesAndRefusesWhatItRefuses() throws Exception {
        var schema = JsonSchemaFactory.getInstance(SpecVersion.VersionFlag.V202012)
                .getSchema(Files.readString(Path.of("../docs/study.schema.json")));
        var mapper = new JsonMapper();
        assertThat(schema.validate(mapper.readTree(StudyJson.text(framed())))).isEmpty();
        assertThat(schema.validate(mapper.readTree(StudyJson.text(study())))).isEmpty();
        assertThat(schema.validate(mapper.readTree(StudyJson.text(Study.empty("e")))))
                .isEmpty();
        String byHand =
                "{\"version\": 3, \"name\": \"x\", \"sources\": [{\"kind\": \"run\", \"id\": \"a\", \"name\": \"a\", \"file\": \"a.vtu\"}]}";
        assertThat(schema.validate(mapper.readTree(byHand))).isEmpty();
        assertThat(StudyJson.of(byHand, "x").sources()).hasSize(1);
        for (String bad : List.of(
                "{\"version\": 4, \"name\": \"x\"}",
                "{\"name\": \"x\"}",
                "{\"version\": 3, \"name\": \"x\", \"sources\": [{\"kind\": \"ghost\", \"id\": \"a\"}]}",
                "{\"version\": 3, \"name\": \"x\", \"colour\": 3}",
                "{\"version\": 3, \"name\": \"x\", \"quantities\": [{\"id\": \"../p\", \"name\": \"p\"}]}")) {
            assertThat(schema.validate(mapper.readTree(bad))).as(bad).isNotEmpty();
            assertThatThrownBy(() -> StudyJson.of(bad, "bad.json"))
                    .as(bad)
                    .isInstanceOf(LaneException.class)
                    .hasMessageContaining("bad.json");
        }
    }

    @Test
    void aMissingOrWrongKindIsToldWithThoseThereAre() {
        String study = "{\"version\": 2, \"name\": \"x\", \"%s\": [{\"id\": \"a\", \"name\": \"a\"%s}]}";
        assertThatThrownBy(() -> StudyJson.of(String.format(study, "stations", ""), "s"))
                .hasMessageContaining("stations[0]: it has no kind; known are ")
                .hasMessageContaining("polyline");
        assertThatThrownBy(() -> StudyJson.of(String.format(study, "readings", ", \"kind\": \"taly\""), "s"))
                .hasMessageContaining("readings[0]")
                .hasMessageContaining("kind \"taly\" is not known; is \"tally\" meant? Known are ");
        assertThatThrownBy(() -> StudyJson.of(String.format(study, "checks", ""), "s"))
                .hasMessageContaining("it has no kind; known are ")
                .hasMessageContaining("closure");
        assertThatThrownBy(() -> StudyJson.of(String.format(study, "sources", ", \"kind\": \"rum\""), "s"))
                .hasMessageContaining("is \"run\" meant?");
    }

    @Test
    void aWrongStudyIsRefusedWithItsPlace() {
        String text = StudyJson.text(study());
        assertThatThrownBy(() -> StudyJson.of(text.replace("\"tolerance\" : 0.1", "\"tolerance\" : -1"), "s"))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("checks[0]")
                .hasMessageContaining("tolerance");
        assertThatThrownBy(() -> StudyJson.of(text.replace("k*r", "k*"), "s"))
                .hasMessageContaining("sources[1].answers[0]")
                .hasMessageContaining("ends too early");
        assertThatThrownBy(() -> StudyJson.of(text.substring(0, 300), "s")).hasMessageContaining("no sound JSON");
        assertThatThrownBy(() -> StudyJson.of("[".repeat(50_000), "s"))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("no sound JSON");
        assertThatThrownBy(() -> StudyJson.of(text.replace("\"cell-exact\"", "\"cell-wrong\""), "s"))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("stations[1].sampling");
        assertThatThrownBy(() -> StudyJson.load(folder.resolve("none.json"))).hasMessageContaining("does not exist");
        assertThatThrownBy(() -> AtomicFile.write(folder.resolve("t"), out -> {
                    throw new java.io.IOException("disk full");
                }))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("disk full");
        assertThat(folder.toFile().list()).isEmpty();
    }

    @Test
    void aStudyOnFilesGivesALedgerThatLeadsBackToThem() throws Exception {
        Mesh mesh = BoxMesh.of(CellShape.HEXAHEDRON, new int[] {2, 2, 2}, new double[] {1, 1, 1}, 0, 1);
        double[] t = new double[mesh.nodeCount()];
        java.util.Arrays.setAll(t, i -> mesh.xyz()[3 * i]);
        int[] region = {1, 1, 1, 1, 2, 2, 2, 2};
        VtkXmlWriter.writeGrid(
                folder.resolve("a.vtu"),
                mesh,
                List.of(
                        new Field("T", Field.At.NODE, 1, Unit.UNKNOWN, Values.of(t)),
                        new Field("region", Field.At.CELL, 1, Unit.ONE, new Values.Ints(region))),
                VtkXmlWriter.Options.DEFAULT);
        Study s = Study.empty("s")
                .withDatum("hand")
                .withSources(l -> List.of(
                        new Source.Simulation("a", "a", "a.vtu", List.of(), "region", ""),
                        new Source.Reference(
                                "hand",
                                "hand",
                                Source.Kind.THEORY,
                                List.of(),
                                Map.of(),
                                List.of(new Curve.HandValue("m", 3, "m2", 0, "")))))
                .withStations(l -> List.of(new Station("one", "one", new OnPart("region 1"))))
                .withReadings(l -> List.of(new Reading("m", "area", "m2", new TallyOf(List.of("one"), new Area()))))
                .withChecks(l -> List.of(new Check("c", "m", Norm.L2, Scale.MEAN, 1e-9, "", List.of())));
        var library = new FileLibrary(folder);
        var results = new Evaluator(library).evaluate(s, Work.QUIET);
        assertThat(library.run((Source.Simulation) s.sources().getFirst(), TimeSelector.LAST, Work.QUIET))
                .isSameAs(results.runs().get("a"));
        LedgerWriter.write(
                results,
                LedgerWriter.To.plain(
                        folder.resolve("out"), folder.resolve("s.lane.json"), Made.here("9.9", Instant.EPOCH)),
                Work.QUIET);
        String csv = Files.readString(folder.resolve("out/ledger.csv"));
        assertThat(csv)
                .startsWith("id,stop,item,what,lane,value,unit")
                .contains("within")
                .contains(",3.0,m2,");
        var json = new JsonMapper().readTree(folder.resolve("out/ledger.json").toFile());
        assertThat(json.get("program").asText()).isEqualTo("Crosscheck Lane 9.9");
        assertThat(json.at("/numbers/0/inputs/0/sha256").asText())
                .isEqualTo(FileHash.of(folder.resolve("a.vtu"), "").sha256());
        assertThat(json.at("/numbers/0/steps").toString())
                .contains("quadrature degree")
                .contains("region 1");
        // A changed run is told and stays as it was read until it is reloaded.
        assertThat(library.changed(s)).isEmpty();
        Files.setLastModifiedTime(folder.resolve("a.vtu"), java.nio.file.attribute.FileTime.fromMillis(5_000));
        assertThat(library.changed(s)).containsExactly("a");
        assertThat(library.run((Source.Simulation) s.sources().getFirst(), TimeSelector.LAST, Work.QUIET))
                .isSameAs(results.runs().get("a"));
        library.reload(s, java.util.Set.of("a"));
        assertThat(library.run((Source.Simulation) s.sources().getFirst(), TimeSelector.LAST, Work.QUIET))
                .isNotSameAs(results.runs().get("a"));
        assertThat(library.changed(s)).isEmpty();
    }

    private Path file(String name, String text) throws Exception {
        return Files.writeString(folder.resolve(name), text);
    }

    @Test
    void aRecipeCorrectsWhatWasFoundAndHoldsForTheNextFileOfTheKind() throws Exception {
        // A comma between columns of whole numbers, which would be read as decimal commas parted by semicolons or
        // spaces.
        file("a.txt", "Rig 7, run 12\nr;T\n1,5;20,25\n2,5;21,75\n");
        file("b.txt", "Rig 7, run 13\nr;T\n3,5;30,25\n4,5;31,75\n");
        file("c.txt", "r;T;u\n3,5;30,25;1\n");
        var library = new FileLibrary(folder);
        Table found = library.table("a.txt", List.of());
        assertThat(found.column("T")).containsExactly(20.25, 21.75);
        assertThat(found.units()).containsExactly("", "");
        assertThat(found.layout().separator()).isEqualTo("semicolon");
        assertThat(found.roles()).containsExactly(Recipe.Role.ABSCISSA, Recipe.Role.VALUE);
        Recipe recipe = Recipe.of(found.layout().kind())
                .with(new Recipe.Column("r", "mm", Recipe.Role.VALUE))
                .with(new Recipe.Column("T", "degC", Recipe.Role.ABSCISSA));
        for (String name : List.of("a.txt", "b.txt")) {
            Table read = library.table(name, List.of(recipe));
            assertThat(read.units()).as(name).containsExactly("mm", "degC");
            assertThat(read.roles()).containsExactly(Recipe.Role.VALUE, Recipe.Role.ABSCISSA);
        }
        assertThat(library.table("c.txt", List.of(recipe)).units())
                .as("another kind")
                .containsExactly("", "", "");
        assertThat(library.table("c.txt", List.of(recipe)).roles()).endsWith(Recipe.Role.UNCERTAINTY);
        // Everything that is found out can be said otherwise.
        Table forced = library.table("a.txt", List.of(recipe.withLayout("Latin-1", "semicolon", "comma", "", 2, 0)));
        assertThat(forced.headers()).containsExactly("column 1", "column 2");
        assertThat(forced.layout().headers()).isZero();
        assertThat(forced.rows()).isEqualTo(2);
    }

    @Test
    void aRecipeMakesReadableWhatTheGuessCannotRead() throws Exception {
        // Two rows of names of which the lower one is no unit, and a column of words.
        Path file = file("odd.csv", "place,valve,p\nfront,state,low\n0.5,open,1.5\n1.0,shut,2.5\n");
        Table found = TableReader.read(file, "odd.csv");
        assertThat(found.headers()).containsExactly("front", "state", "low");
        assertThat(found.roles()).containsExactly(Recipe.Role.ABSCISSA, Recipe.Role.IGNORE, Recipe.Role.VALUE);
        assertThat(found.column("state")).containsOnly(Double.NaN);
        Recipe recipe = Recipe.of(found.layout().kind()).withLayout("", "", "", "", -1, 2);
        Table read = TableReader.read(file, "odd.csv", recipe);
        assertThat(read.headers()).containsExactly("place", "valve", "p");
        assertThat(read.column("p")).containsExactly(1.5, 2.5);
        // A word among numbers is told and counts as missing.
        Path typo = file("typo.csv", "x,y\n1,2\n2,tree\n3,4\n");
        Table told = TableReader.read(typo, "typo.csv");
        assertThat(told.column("y")).containsExactly(2, Double.NaN, 4);
        assertThat(told.found().findings()).singleElement().asString().contains("\"tree\" in line 3 of \"y\"");
        assertThat(told.found().words()).containsExactly(0, 1);
        Recipe ignore = Recipe.of("x,y").with(new Recipe.Column("y", "", Recipe.Role.IGNORE));
        assertThat(TableReader.read(typo, "typo.csv", ignore).column("y")).containsExactly(2, Double.NaN, 4);
    }

    private Path workbook(String name, String... sheets) throws Exception {
        Path file = folder.resolve(name);
        try (var zip = new java.util.zip.ZipOutputStream(Files.newOutputStream(file))) {
            var types = new StringBuilder();
            var list = new StringBuilder();
            var relations = new StringBuilder();
            for (int i = 1; i <= sheets.length; i++) {
                types.append("<Override PartName=\"/xl/worksheets/sheet")
                        .append(i)
                        .append(
                                ".xml\" ContentType=\"application/vnd.openxmlformats-officedocument.spreadsheetml.worksheet+xml\"/>");
                list.append("<sheet name=\"Sheet ")
                        .append(i)
                        .append("\" sheetId=\"")
                        .append(i)
                        .append("\" r:id=\"r")
                        .append(i)
                        .append("\"/>");
                relations
                        .append("<Relationship Id=\"r")
                        .append(i)
                        .append(
                                "\" Type=\"http://schemas.openxmlformats.org/officeDocument/2006/relationships/worksheet\" Target=\"worksheets/sheet")
                        .append(i)
                        .append(".xml\"/>");
            }
            entry(
                    zip,
                    "[Content_Types].xml",
                    "<Types xmlns=\"http://schemas.openxmlformats.org/package/2006/content-types\">"
                            + "<Default Extension=\"rels\" ContentType=\"application/vnd.openxmlformats-package.relationships+xml\"/>"
                            + "<Override PartName=\"/xl/workbook.xml\" ContentType=\"application/vnd.openxmlformats-officedocument.spreadsheetml.sheet.main+xml\"/>"
                            + types + "</Types>");
            entry(
                    zip,
                    "_rels/.rels",
                    "<Relationships xmlns=\"http://schemas.openxmlformats.org/package/2006/relationships\"><Relationship "
                            + "Id=\"r1\" Type=\"http://schemas.openxmlformats.org/officeDocument/2006/relationships/officeDocument\" Target=\"xl/workbook.xml\"/></Relationships>");
            entry(
                    zip,
                    "xl/workbook.xml",
                    "<workbook xmlns=\"http://schemas.openxmlformats.org/spreadsheetml/2006/main\" "
                            + "xmlns:r=\"http://schemas.openxmlformats.org/officeDocument/2006/relationships\"><sheets>"
                            + list + "</sheets></workbook>");
            entry(
                    zip,
                    "xl/_rels/workbook.xml.rels",
                    "<Relationships xmlns=\"http://schemas.openxmlformats.org/package/2006/relationships\">" + relations
                            + "</Relationships>");
            for (int i = 1; i <= sheets.length; i++) {
                entry(
                        zip,
                        "xl/worksheets/sheet" + i + ".xml",
                        "<worksheet xmlns=\"http://schemas.openxmlformats.org/spreadsheetml/2006/main\"><sheetData>"
                                + sheets[i - 1] + "</sheetData></worksheet>");
            }
        }
        return file;
    }

    private static void entry(java.util.zip.ZipOutputStream zip, String name, String text) throws Exception {
        zip.putNextEntry(new java.util.zip.ZipEntry(name));
        zip.write(text.getBytes(StandardCharsets.UTF_8));
        zip.closeEntry();
    }

    private static String row(int row, int from, String... cells) {
        var out = new StringBuilder("<row r=\"" + row + "\">");
        for (int c = 0; c < cells.length; c++) {
            String at = (char) ('A' + from + c) + String.valueOf(row);
            boolean number = cells[c].matches("[-0-9.eE]+");
            out.append(
                    cells[c].isEmpty()
                            ? ""
                            : number
                                    ? "<c r=\"" + at + "\"><v>" + cells[c] + "</v></c>"
                                    : "<c r=\"" + at + "\" t=\"inlineStr\"><is><t>" + cells[c] + "</t></is></c>");
        }
        return out.append("</row>").toString();
    }

    @Test
    void aWorkbookGivesItsFirstSheetWithNumbersAndOthersByRecipe() throws Exception {
        String first = row(1, 0, "Only words here");
        String second = row(2, 1, "Rake at the outlet")
                + row(4, 1, "radius", "temperature", "u")
                + row(5, 1, "mm", "degC", "K")
                + row(6, 1, "30.5", "41.25", "0.3")
                + row(7, 1, "31.5", "", "0.3")
                + row(8, 1, "32.5", "4.2E1", "0.4");
        String third = row(1, 0, "a [Pa]", "b [Pa]") + row(2, 0, "1", "2");
        Path file = workbook("rake.xlsx", first, second, third);
        Table t = TableReader.read(file, "rake.xlsx");
        assertThat(t.layout().sheet()).isEqualTo("Sheet 2");
        assertThat(t.layout().sheets()).containsExactly("Sheet 1", "Sheet 2", "Sheet 3");
        assertThat(t.headers()).containsExactly("radius", "temperature", "u");
        assertThat(t.units()).containsExactly("mm", "degC", "K");
        assertThat(t.column("temperature")).containsExactly(41.25, Double.NaN, 42);
        Recipe other = Recipe.of(t.layout().kind()).withLayout("", "", "", "Sheet 3", -1, -1);
        Table third2 = new FileLibrary(folder).table("rake.xlsx", List.of(other));
        assertThat(third2.headers()).containsExactly("a", "b");
        assertThat(third2.column("b")).containsExactly(2);
        byte[] whole = Files.readAllBytes(file);
        Files.write(folder.resolve("cut.xlsx"), java.util.Arrays.copyOf(whole, whole.length / 2));
        assertThatThrownBy(() -> TableReader.read(folder.resolve("cut.xlsx"), "cut.xlsx"))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("cut.xlsx");
        Fuzz.run(folder, ".xlsx", List.of(whole), f -> TableReader.read(f, "damaged.xlsx"));
    }

    @Test
    void anUncertaintyIsReadAsAColumnsNameOrAsAnObject() {
        String text = StudyJson.text(study());
        Study named =
                StudyJson.of(text.replaceFirst("\"uncertainty\" : \\{[^}]*\\}", "\"uncertainty\" : \"u\""), "by hand");
        assertThat(named).isEqualTo(study());
    }
}
