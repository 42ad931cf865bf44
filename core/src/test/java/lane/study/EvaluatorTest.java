package lane.study;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Map;
import java.util.concurrent.CancellationException;
import lane.base.LaneException;
import lane.base.Work;
import lane.check.Check;
import lane.check.Norm;
import lane.check.Scale;
import lane.check.Verdict;
import lane.estimate.Estimate;
import lane.field.Field;
import lane.field.PartBuilder;
import lane.field.Run;
import lane.field.Values;
import lane.measure.Mean;
import lane.mesh.Axis;
import lane.mesh.BoxMesh;
import lane.mesh.CellShape;
import lane.mesh.Mesh;
import lane.mesh.Point;
import lane.quantity.Component;
import lane.quantity.FieldUnit;
import lane.quantity.Quantity;
import lane.reading.Outcome;
import lane.reading.Profile;
import lane.reading.ProfileOf;
import lane.reading.Reading;
import lane.reading.TallyOf;
import lane.reference.Curve;
import lane.reference.Table;
import lane.station.Abscissa;
import lane.station.Line;
import lane.station.OnPart;
import lane.station.Sampling;
import lane.station.Station;
import lane.unit.Unit;
import org.junit.jupiter.api.Test;

class EvaluatorTest {
    /** Hands out runs of a box with T = 1 + 2x; "missing" cannot be read. */
    private static final class Memory implements Library {
        private final Map<String, Run> runs = Map.of("coarse", run(2), "fine", run(4));

        private static Run run(int n) {
            Mesh mesh = BoxMesh.of(CellShape.HEXAHEDRON, new int[] {n, n, n}, new double[] {1, 1, 1}, 0, 1);
            double[] t = new double[mesh.nodeCount()];
            java.util.Arrays.setAll(t, i -> 1 + 2 * mesh.xyz()[3 * i]);
            return new Run(
                    mesh,
                    List.of(new Field("T", Field.At.NODE, 1, Unit.UNKNOWN, Values.of(t))),
                    List.of(new PartBuilder(mesh).whole("skin")),
                    List.of(),
                    List.of());
        }

        @Override
        public Run run(Source.Simulation source, lane.field.TimeSelector moment, Work work) {
            if (source.file().equals("missing")) {
                throw new LaneException("The file missing cannot be read: it does not exist; check the path.");
            }
            if (source.file().equals("broken")) {
                throw new IndexOutOfBoundsException("Index 7 out of bounds for length 7");
            }
            return runs.get(source.file());
        }

        @Override
        public Table table(String file, List<lane.reference.Recipe> recipes) {
            throw new LaneException("There is no table here.");
        }
    }

    static Study study() {
        Point a = new Point(0, 0.5, 0.5);
        return Study.of(
                "test",
                new Settings(
                        "theory",
                        List.of(),
                        Axis.Z,
                        lane.field.TimeSelector.LAST,
                        List.of(new FieldUnit("T", "K", true)),
                        List.of()),
                List.of(
                        new Source.Simulation("coarse", "coarse", "coarse", List.of(), "", "f"),
                        new Source.Simulation("fine", "fine", "fine", List.of(), "", "f"),
                        new Source.Reference(
                                "theory",
                                "theory",
                                Source.Kind.THEORY,
                                List.of(),
                                Map.of("k", 2.0),
                                List.of(
                                        new Curve.ByFormula("p1", "1 + k*x", "K"),
                                        new Curve.ByFormula("p2", "2", "K")))),
                List.of(new Quantity("t", "temperature", "T", Component.ALL, "K")),
                List.of(),
                List.of(
                        new Station(
                                "l1", "one", new Line(a, new Point(1, 0.5, 0.5), new Sampling.Even(11), Abscissa.X)),
                        new Station(
                                "l2", "two", new Line(a, new Point(1, 0.6, 0.5), new Sampling.Even(11), Abscissa.X)),
                        new Station("skin", "skin", new OnPart("skin"))),
                List.of(
                        new Reading("p1", "first", "", new ProfileOf("l1", "t")),
                        new Reading("p2", "second", "", new ProfileOf("l2", "t")),
                        new Reading("m", "mean", "", new TallyOf(List.of("skin"), new Mean("t")))),
                List.of(
                        new Check("c1", "p1", Norm.LINF, Scale.RANGE, 1e-12, "", List.of()),
                        new Check("c2", "p2", Norm.L2, Scale.ABSOLUTE, 0.1, "", List.of())),
                Pictures.NONE);
    }

    @Test
    void everythingIsAnsweredAndJudged() {
        Results r = new Evaluator(new Memory()).evaluate(study(), Work.QUIET);
        assertThat(r.checks().get("c1").verdict()).isEqualTo(Verdict.WITHIN);
        assertThat(r.checks().get("c2").verdict()).isEqualTo(Verdict.OUT);
        assertThat(r.outcome("p1", "fine")).isInstanceOf(Profile.class);
        assertThat(r.outcome("m", "theory")).isInstanceOf(Outcome.Absent.class);
        assertThat(r.outcome("p1", "fine").trail().steps())
                .extracting("stop")
                .contains("source", "quantity", "station", "reading");
        assertThat(r.placements().get("l1").get("coarse").found()).isEqualTo(11);
    }

    @Test
    void anEditRecomputesWhatItTouchesAndNothingElse() {
        var evaluator = new Evaluator(new Memory());
        Study s = study();
        evaluator.evaluate(s, Work.QUIET);
        int all = evaluator.computed();
        // 2 lines x 2 runs, 3 readings x 2 runs, 2 answers of the theory, 2 checks.
        assertThat(all).isEqualTo(4 + 6 + 2 + 2);
        evaluator.evaluate(s, Work.QUIET);
        assertThat(evaluator.computed()).as("nothing changed").isEqualTo(all);
        evaluator.evaluate(s.withOff(List.of("coarse")).withName("other"), Work.QUIET);
        assertThat(evaluator.computed()).as("switching a lane off").isEqualTo(all);
        Study tighter = s.with(new Check("c2", "p2", Norm.L2, Scale.ABSOLUTE, 0.2, "", List.of()));
        evaluator.evaluate(tighter, Work.QUIET);
        assertThat(evaluator.computed()).as("a tolerance").isEqualTo(all + 1);
        Station line = s.station("l2").orElseThrow();
        Study moved = tighter.with(
                line.shaped(((Line) line.shape()).between(new Point(0, 0.4, 0.5), new Point(1, 0.6, 0.5))));
        evaluator.evaluate(moved, Work.QUIET);
        // Two placements, three answers on that line and its check; the other line and the tally stay.
        assertThat(evaluator.computed()).as("one line moved").isEqualTo(all + 1 + 2 + 3 + 1);
        evaluator.evaluate(tighter, Work.QUIET);
        assertThat(evaluator.computed()).as("undo").isEqualTo(all + 1 + 2 + 3 + 1);
        evaluator.evaluate(s, Work.QUIET);
        evaluator.evaluate(moved, Work.QUIET);
        assertThat(evaluator.computed()).as("back and forth over several edits").isEqualTo(all + 1 + 2 + 3 + 1);
    }

    @Test
    void whatDoesNotFitIntoTheMemoryThatIsGivenIsComputedAgainAndIsTheSame() {
        var memo = new lane.base.BoundedMemo(2_000);
        var evaluator = new Evaluator(new Memory(), memo);
        Results first = evaluator.evaluate(study(), Work.QUIET);
        int all = evaluator.computed();
        Results second = evaluator.evaluate(study(), Work.QUIET);
        assertThat(evaluator.computed()).isGreaterThan(all);
        assertThat(memo.bytes()).isLessThanOrEqualTo(2_000);
        assertThat(second.outcome("m", "fine").numbers())
                .isEqualTo(first.outcome("m", "fine").numbers());
    }

    /** Gaps of 12 mm, and of half a millimetre more in metres. */
    private static Run gap(String file) {
        boolean small = file.equals("fine");
        Run of = Memory.run(2);
        double[] gap = new double[of.mesh().nodeCount()];
        java.util.Arrays.fill(gap, small ? 0.0125 : 12);
        return new Run(
                of.mesh(),
                List.of(new Field("gap", Field.At.NODE, 1, Unit.of(small ? "m" : "mm"), Values.of(gap))),
                of.parts(),
                List.of(),
                List.of());
    }

    /** A tolerance in millimetres is one in all lanes, whatever unit their files have. */
    @Test
    void lanesWhoseFilesHaveOtherUnitsAnswerInOne() {
        Map<String, Run> runs = Map.of("coarse", gap("coarse"), "fine", gap("fine"));
        Library library = new Library() {
            @Override
            public Run run(Source.Simulation source, lane.field.TimeSelector moment, Work work) {
                return java.util.Objects.requireNonNull(runs.get(source.file()));
            }

            @Override
            public Table table(String file, List<lane.reference.Recipe> recipes) {
                throw new LaneException("There is no table here.");
            }
        };
        var evaluator = new Evaluator(library);
        for (double tolerance : new double[] {0.4, 0.6}) {
            Study study = study().withSources(l -> l.subList(0, 2))
                    .withQuantities(l -> List.of(new Quantity("t", "gap", "gap", "", "")))
                    .withDatum("coarse")
                    .withChecks(l -> List.of(
                            new Check("c1", "p1", Norm.LINF, Scale.ABSOLUTE, tolerance, "", List.of()),
                            new Check("c2", "m", Norm.LINF, Scale.ABSOLUTE, tolerance, "", List.of())));
            Results made = evaluator.evaluate(study, Work.QUIET);
            for (String reading : List.of("p1", "m")) {
                assertThat(made.outcome(reading, "fine").unit()).isEqualTo(Unit.of("mm"));
                assertThat(made.numbers("m").get("fine").getFirst().shown()).isCloseTo(12.5, within(1e-12));
            }
            Verdict all = tolerance == 0.4 ? Verdict.OUT : Verdict.WITHIN;
            assertThat(made.checks().get("c1").verdict()).isEqualTo(all);
            assertThat(made.checks().get("c2").verdict()).isEqualTo(all);
            int before = evaluator.computed();
            Results again = evaluator.evaluate(study, Work.QUIET);
            assertThat(evaluator.computed()).as("nothing is judged anew").isEqualTo(before);
            assertThat(again.outcome("m", "fine")).isSameAs(made.outcome("m", "fine"));
        }
        // Large numbers have a prefix, and are written with it.
        Study wide = study().withSources(l -> l.subList(1, 2))
                .withQuantities(l -> List.of(new Quantity("t", "force", "1e6 * gap", "", "")))
                .withDatum("")
                .withChecks(l -> List.of());
        Results told = evaluator.evaluate(wide, Work.QUIET);
        assertThat(told.unit("m")).isEqualTo(Unit.of("km"));
        assertThat(told.numbers("m").get("fine").getFirst().shown()).isCloseTo(12.5, within(1e-12));
    }

    /** The time of a peak in minutes is not written beside the word for hours. */
    @Test
    void furtherNumbersOfAnAnswerAreInOneUnitToo() {
        java.util.function.BiFunction<String, String, Outcome> peak = (level, time) -> new lane.reading.Several(
                List.of(
                        new lane.reading.Scalar("greatest", new Estimate(3, Unit.of(level)), ""),
                        new lane.reading.Scalar("at", new Estimate(7200, Unit.of(time)), "")),
                0,
                List.of(),
                "",
                Double.NaN,
                lane.provenance.Provenance.EMPTY);
        var lanes = new java.util.LinkedHashMap<String, Outcome>();
        lanes.put("a", peak.apply("m", "h"));
        lanes.put("b", peak.apply("cm", "min"));
        Study study = Study.empty("tide");
        Map<String, List<Estimate>> told =
                Results.none(study).with(study, "r", lanes).numbers("r");
        for (String of : List.of("a", "b")) {
            assertThat(told.get(of)).extracting(Estimate::shown).containsExactly(3.0, 3.0, 2.0);
        }
    }

    @Test
    void aRunThatCannotBeReadIsNamedAndTheOthersGoOn() {
        Study s = study().withSources(l -> {
            l.add(0, new Source.Simulation("bad", "bad", "missing", List.of(), "", "f"));
            return l;
        });
        Results r = new Evaluator(new Memory()).evaluate(s, Work.QUIET);
        assertThat(r.failures().get("bad")).contains("does not exist");
        assertThat(r.outcome("p1", "bad")).isInstanceOf(Outcome.Absent.class);
        assertThat(r.checks().get("c1").verdict()).isEqualTo(Verdict.WITHIN);
    }

    /** A kind of reading that falls on its nose. */
    private record Faulty(int at) implements lane.reading.Ask {
        @Override
        public Form form() {
            return Form.NUMBER;
        }

        @Override
        public List<String> stations() {
            return List.of();
        }

        @Override
        public java.util.Set<String> quantities() {
            return java.util.Set.of();
        }

        @Override
        public Outcome read(Reading reading, lane.reading.ReadingContext on) {
            return new Outcome.Absent(List.of("one").get(at), "");
        }
    }

    @Test
    void aFaultOfTheProgramCostsItsOwnAnswerAndNotTheStudy() {
        Study s = study().withSources(l -> {
                    l.add(0, new Source.Simulation("bad", "bad", "broken", List.of(), "", "f"));
                    return l;
                })
                .withReadings(l -> {
                    l.add(new Reading("f", "faulty", "", new Faulty(3)));
                    return l;
                });
        Results r = new Evaluator(new Memory()).evaluate(s, Work.QUIET);
        assertThat(r.failures().get("bad")).startsWith("Reading run \"bad\" failed by a fault of the program");
        var absent = (Outcome.Absent) r.outcome("f", "fine");
        assertThat(absent.brief()).isEqualTo("a fault");
        assertThat(absent.reason())
                .contains("\"faulty\" on \"fine\"")
                .contains("IndexOutOfBounds")
                .contains("report");
        assertThat(r.checks().get("c1").verdict()).isEqualTo(Verdict.WITHIN);
    }

    @Test
    void wrongDefinitionsAreToldWhereTheyBelong() {
        Study s = study().withQuantities(l -> List.of(new Quantity("t", "temperature", "nothing", Component.ALL, "")));
        assertThat(((Outcome.Absent) new Evaluator(new Memory())
                                .evaluate(s, Work.QUIET)
                                .outcome("p1", "fine"))
                        .reason())
                .contains("no field \"nothing\"")
                .contains("T");
        Study noUnit = study().withUnits(l -> List.of());
        Results r = new Evaluator(new Memory())
                .evaluate(noUnit.with(new Quantity("t", "temperature", "T", Component.ALL, "")), Work.QUIET);
        assertThat(r.checks().get("c1").verdict()).isEqualTo(Verdict.NO_DATA);
        assertThat(r.checks().get("c1").why()).contains("without a known unit");
        assertThatThrownBy(() -> study().withStations(l -> {
                    l.add(l.getFirst());
                    return l;
                }))
                .isInstanceOf(LaneException.class)
                .hasMessageContaining("two of the station id \"l1\"");
    }

    @Test
    void aCancelledEvaluationLeavesTheEvaluatorUsable() {
        var evaluator = new Evaluator(new Memory());
        var work = new Work() {
            @Override
            public boolean cancelled() {
                return true;
            }

            @Override
            public void progress(String what, double fraction) {}
        };
        assertThatThrownBy(() -> evaluator.evaluate(study(), work)).isInstanceOf(CancellationException.class);
        assertThat(evaluator.evaluate(study(), Work.QUIET).checks().get("c1").verdict())
                .isEqualTo(Verdict.WITHIN);
    }

    @Test
    void undoAndRedoWalkBackAndForth() {
        Study a = Study.empty("a");
        var history = new UndoStack(a);
        history.edit("Rename", a.withName("b"), false);
        history.edit("Drag", a.withName("c"), true);
        history.edit("Drag", a.withName("d"), true);
        assertThat(history.changed()).isTrue();
        history.undo();
        assertThat(history.now().name()).isEqualTo("b");
        history.redo();
        assertThat(history.now().name()).isEqualTo("d");
        history.pause();
        history.edit("Drag", a.withName("e"), true);
        history.undo();
        assertThat(history.now().name()).isEqualTo("d");
        history.undo();
        history.undo();
        history.undo();
        assertThat(history.now()).isEqualTo(a);
        assertThat(history.changed()).isFalse();
        history.edit("Rename", a.withName("z"), false);
        assertThat(history.redoes()).isEmpty();
    }

    @Test
    void aCheckThatNamesNoLaneJudgesTheFinestRunThatIsNotItsDatum() {
        Study study = study();
        lane.check.Check any = study.checks().getFirst();
        var free = any.by(((lane.check.AgainstDatum) any.rule()).tolerating(1)).judging(List.of());
        assertThat(study.judged(free)).containsExactly("fine");
        assertThat(study.withDatum("fine").judged(free)).containsExactly("coarse");
        var result = new Evaluator(new Memory())
                .evaluate(study.withDatum("fine").with(free), Work.QUIET)
                .checks()
                .get(free.id());
        assertThat(result.verdict()).isEqualTo(lane.check.Verdict.WITHIN);
        assertThat(result.lanes().get("coarse").verdict()).isEqualTo(lane.check.Verdict.WITHIN);
    }
}
