package lane.desk;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import lane.check.Check;
import lane.check.Verdict;
import lane.desk.madeup.Helix;
import lane.desk.madeup.Positive;
import lane.desk.madeup.RootMeanSquare;
import lane.desk.madeup.SpreadOf;
import lane.formats.study.StudyJson;
import lane.ledger.Ledger;
import lane.reading.Profile;
import lane.reading.ProfileOf;
import lane.reading.Reading;
import lane.reading.Tally;
import lane.reading.TallyOf;
import lane.station.Abscissa;
import lane.station.Sampling;
import lane.station.Station;
import org.junit.jupiter.api.Test;

/**
 * A kind of each that the program does not know: two classes and a line in two services files, in this folder. Everything
 * else must work on it as it is.
 */
class MadeUpKindsTest extends InWindow {
    @Test
    void aKindOfEachIsEvaluatedCheckedLedgeredAndOpened() throws Exception {
        onFx(() -> {
            session.edit("made up", s -> s.withStations(l -> {
                        l.add(new Station(
                                "wire", "Wire", new Helix(0.033, 0.03, 0.06, new Sampling.Even(181), Abscissa.ARC)));
                        return l;
                    })
                    .withReadings(l -> {
                        l.add(new Reading("along-wire", "Swirl along the wire", "m/s", new ProfileOf("wire", "swirl")));
                        l.add(new Reading("spread", "Spread of swirl", "mm/s", new SpreadOf("wire", "swirl")));
                        l.add(new Reading(
                                "rms",
                                "Effective swirl",
                                "",
                                new TallyOf(List.of("wire"), new RootMeanSquare("swirl"))));
                        return l;
                    })
                    .withChecks(l -> {
                        l.add(new Check("wire-positive", "spread", new Positive(true), List.of()));
                        return l;
                    }));
            return null;
        });
        settled();
        assertThat(session.message()).isEmpty();
        // Evaluated.
        Profile along = (Profile) session.results().outcome("along-wire", "fine");
        assertThat(along.found()).isGreaterThan(150);
        Tally spread = (Tally) session.results().outcome("spread", "fine");
        assertThat(spread.value()).isCloseTo(along.range(), within(1e-15));
        Tally rms = (Tally) session.results().outcome("rms", "fine");
        assertThat(rms.value()).isBetween(0.3, 1.2);
        // Checked.
        assertThat(session.results().checks().get("wire-positive").verdict()).isEqualTo(Verdict.WITHIN);
        // In the ledger, with the definition in the trail.
        Ledger ledger = Ledger.of(session.results());
        assertThat(ledger.lines()).anySatisfy(line -> {
            assertThat(line.item()).isEqualTo("Spread of swirl");
            assertThat(line.lane()).isEqualTo("fine");
            assertThat(line.value()).isCloseTo(1000 * spread.value(), within(1e-9));
            assertThat(line.trail().steps().toString()).contains("kind=helix").contains("pitch=0.06");
        });
        assertThat(ledger.lines()).anySatisfy(line -> {
            assertThat(line.stop()).isEqualTo("check");
            assertThat(line.what()).isEqualTo("sign");
            assertThat(line.verdict()).isEqualTo("within");
        });
        // Written and read.
        assertThat(StudyJson.of(StudyJson.text(session.study()), "x")).isEqualTo(session.study());
        // Opened in the window.
        onFx(() -> {
            session.select(Chosen.STATION, "wire");
            session.go(2);
            return null;
        });
        settled();
        see("Others");
        see("Wire");
        look("madeup-station");
        for (String reading : List.of("along-wire", "spread", "rms")) {
            onFx(() -> {
                session.select(Chosen.READING, reading);
                session.go(4);
                return null;
            });
            settled();
            see("Spreads");
            look("madeup-" + reading);
        }
        onFx(() -> {
            session.select(Chosen.CHECK, "wire-positive");
            session.go(5);
            return null;
        });
        settled();
        see("spread, mm/s, sign");
        see("It is positive.");
        look("madeup-check");
    }
}
