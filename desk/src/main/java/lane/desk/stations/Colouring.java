package lane.desk.stations;

import java.util.List;
import java.util.function.Consumer;
import java.util.function.Supplier;
import javafx.scene.control.CustomMenuItem;
import javafx.scene.control.MenuButton;
import javafx.scene.control.RadioMenuItem;
import javafx.scene.control.SeparatorMenuItem;
import lane.desk.Named;
import lane.desk.Ui;
import lane.picture.field.Look;

/**
 * How values become colours in the field picture.
 *
 * @param style bands, faces, logarithm, marks
 * @param ends where the scale ends
 * @param least and {@code greatest}: fixed ends, in the unit shown
 */
record Colouring(Look.Style style, Ends ends, double least, double greatest) {
    static final Colouring FIRST = new Colouring(new Look.Style(0, false, false, true), Ends.LANE, 0, 1);
    private static final int BANDS = 12;

    /** Where a scale ends. */
    enum Ends {
        LANE("least to greatest of this lane"),
        LANES("least to greatest of all lanes"),
        TIMES("least to greatest of all times"),
        ROBUST("2 to 98 % of the values"),
        FIXED("fixed");

        private final String word;

        Ends(String word) {
            this.word = word;
        }
    }

    Colouring with(Ends other) {
        return new Colouring(style, other, least, greatest);
    }

    Colouring with(Look.Style other) {
        return new Colouring(other, ends, least, greatest);
    }

    /** What the scale's note says. */
    String word() {
        String how = style.bands() > 0 ? style.bands() + " bands" : style.byFace() ? "by face" : "";
        String range =
                switch (ends) {
                    case LANE -> "";
                    case LANES -> "all lanes";
                    case TIMES -> "all times";
                    case ROBUST -> "2 to 98 %";
                    case FIXED -> "fixed ends";
                };
        return (how.isEmpty() ? "" : ",\n" + how) + (range.isEmpty() ? "" : ",\n" + range);
    }

    /**
     * The menu that changes it.
     *
     * @param shown ends as they are now, in the unit shown
     */
    static MenuButton menu(Colouring now, Supplier<double[]> shown, Consumer<Colouring> changed) {
        var menu = Named.menuButton("Colour");
        menu.setId("picture-colour");
        menu.getStyleClass().add("small-menu");
        menu.setMinWidth(javafx.scene.layout.Region.USE_PREF_SIZE);
        Look.Style s = now.style();
        menu.getItems()
                .addAll(
                        radio(
                                "smooth",
                                s.bands() == 0 && !s.byFace(),
                                () -> changed.accept(now.with(new Look.Style(0, false, s.log(), s.marked())))),
                        radio(
                                "in bands, with lines",
                                s.bands() > 0,
                                () -> changed.accept(now.with(new Look.Style(BANDS, false, s.log(), s.marked())))),
                        radio(
                                "one colour a face",
                                s.byFace(),
                                () -> changed.accept(now.with(new Look.Style(0, true, s.log(), s.marked())))),
                        new SeparatorMenuItem());
        for (Ends e : List.of(Ends.LANE, Ends.LANES, Ends.TIMES, Ends.ROBUST)) {
            menu.getItems().add(radio(e.word, now.ends() == e, () -> changed.accept(now.with(e))));
        }
        double[] ends = shown.get();
        var least = Ui.number(
                "scale-least", ends[0], v -> changed.accept(new Colouring(s, Ends.FIXED, v, Math.max(ends[1], v))));
        var greatest = Ui.number(
                "scale-greatest", ends[1], v -> changed.accept(new Colouring(s, Ends.FIXED, Math.min(ends[0], v), v)));
        least.setPrefWidth(76);
        greatest.setPrefWidth(76);
        var fixed = Ui.row(6, Ui.label("from", "second"), least, Ui.label("to", "second"), greatest);
        menu.getItems().add(new CustomMenuItem(fixed, false));
        var log = Named.checkItem("logarithmic, where both ends are positive");
        log.setSelected(s.log());
        log.setOnAction(e -> changed.accept(now.with(new Look.Style(s.bands(), s.byFace(), !s.log(), s.marked()))));
        menu.getItems().addAll(new SeparatorMenuItem(), log);
        return menu;
    }

    private static RadioMenuItem radio(String word, boolean on, Runnable action) {
        var item = Named.radioItem(word);
        item.setSelected(on);
        item.setOnAction(e -> action.run());
        return item;
    }
}
