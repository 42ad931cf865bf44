package lane.desk;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.file.Path;
import java.time.Instant;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import lane.base.LaneException;
import lane.check.Verdict;
import lane.evaluation.BoundQuantity;
import lane.field.Run;
import lane.formats.study.Drafts;
import lane.formats.study.Recents;
import lane.picture.Export;
import lane.picture.Palette;
import lane.picture.field.SurfacePicture;
import lane.quantity.Quantity;

/** Keeps, for the page of recent studies, what a study's verdicts are, where it was looked at, and how its finest run looks. */
final class RecentNote {
    private static final SurfacePicture.View SIDE = new SurfacePicture.View(Math.toRadians(40), Math.toRadians(28));
    private final Session session;
    /** What the picture shows that was kept last, by this session. */
    private Object pictured = "";

    RecentNote(Session session) {
        this.session = session;
    }

    /** Notes the study as it is looked at now; one without a place of its own is no recent study. */
    void note() {
        Path file = session.file();
        if (Drafts.holds(file)) {
            return;
        }
        var verdicts = new EnumMap<Verdict, Integer>(Verdict.class);
        session.results().checks().values().forEach(c -> verdicts.merge(c.verdict(), 1, Integer::sum));
        Map<String, String> chosen = new LinkedHashMap<>();
        for (Chosen what : Chosen.values()) {
            if (!session.selected(what).isBlank()) {
                chosen.put(what.name(), session.selected(what));
            }
        }
        Recents.note(new Recents.Entry(file, session.study().name(), Instant.now(), verdicts, session.stop(), chosen));
    }

    /** Draws the finest run behind the window, once for each reading of it. */
    void picture() {
        Path file = session.file();
        Optional<Run> run = session.study().finest().stream()
                .flatMap(id -> Optional.ofNullable(session.results().runs().get(id)).stream())
                .findFirst();
        if (run.isEmpty() || Drafts.holds(file) || run.get().key().equals(pictured)) {
            return;
        }
        pictured = run.get().key();
        var lens = session.lens();
        Thread.ofPlatform()
                .daemon()
                .priority(Thread.MIN_PRIORITY)
                .name("small picture")
                .start(() -> {
                    Quantity quantity = session.study().quantities().stream()
                            .filter(q -> BoundQuantity.type(run.get(), q, lens)
                                    .filter(t -> t.components() == 1)
                                    .isPresent())
                            .findFirst()
                            .orElse(null);
                    try {
                        var out = new ByteArrayOutputStream();
                        Export.png(
                                SurfacePicture.of(run.get(), quantity, lens, SIDE, 336, 210, Palette.LIGHT, false)
                                        .image(),
                                out);
                        Recents.picture(file, out.toByteArray());
                    } catch (LaneException | IOException e) {
                        // It is shown without one.
                    }
                });
    }

    /** Looks at the study where it was looked at last. */
    void goBack() {
        Recents.of(session.file()).ifPresent(e -> {
            e.chosen().forEach((what, id) -> {
                for (Chosen c : Chosen.values()) {
                    if (c.name().equals(what)) {
                        session.select(c, id);
                    }
                }
            });
            session.go(e.stop());
        });
    }
}
