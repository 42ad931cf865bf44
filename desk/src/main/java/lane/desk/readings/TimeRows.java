package lane.desk.readings;

import java.util.function.BiFunction;
import java.util.function.Function;
import javafx.scene.layout.VBox;
import lane.desk.Session;
import lane.reading.Ask;
import lane.reading.Reading;
import org.jspecify.annotations.Nullable;

/** Which stored times count, and what they are counted in. */
final class TimeRows {
    private TimeRows() {}

    static void add(
            Session session,
            Reading reading,
            VBox box,
            String unit,
            @Nullable Double from,
            @Nullable Double to,
            Function<String, Ask> in,
            BiFunction<@Nullable Double, @Nullable Double, Ask> between) {
        var field = Rows.unit(unit, "time-unit", u -> Rows.change(session, reading, () -> in.apply(u.strip())));
        if (field != null) {
            field.setPromptText("s");
        }
        box.getChildren()
                .addAll(
                        Rows.of("Times in", field, lane.desk.Ui.label("1 for steps", "small", "muted")),
                        Rows.of(
                                "from, to",
                                Rows.end(
                                        "time-from",
                                        from,
                                        v -> Rows.change(session, reading, () -> between.apply(v.orElse(null), to))),
                                Rows.end(
                                        "time-to",
                                        to,
                                        v -> Rows.change(
                                                session, reading, () -> between.apply(from, v.orElse(null))))));
    }
}
