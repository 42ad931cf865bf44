package lane.desk.quantities;

import java.io.File;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import javafx.scene.Node;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.input.Clipboard;
import javafx.scene.input.ClipboardContent;
import javafx.stage.FileChooser;
import lane.base.LaneException;
import lane.desk.Chosen;
import lane.desk.Named;
import lane.desk.Session;
import lane.formats.study.QuantitiesFile;
import lane.quantity.Definitions;
import lane.quantity.Quantity;
import lane.study.Merge;

/** Quantities to and from other studies: by the clipboard, and by files. */
final class QuantityTransfer {
    private final Session session;
    private final Node owner;

    QuantityTransfer(Session session, Node owner) {
        this.session = session;
        this.owner = owner;
    }

    MenuButton menu() {
        var menu = Named.menuButton("Exchange");
        menu.setId("quantity-exchange");
        menu.getStyleClass().add("small-menu");
        menu.setMinWidth(javafx.scene.layout.Region.USE_PREF_SIZE);
        menu.getItems()
                .addAll(
                        item("Copy this with what it needs", this::copy),
                        item(
                                "Copy all",
                                () -> put(QuantitiesFile.json(session.study().quantities()))),
                        item("Paste", this::paste),
                        item("Import…", this::load),
                        item("Export…", this::save));
        return menu;
    }

    private static MenuItem item(String text, Runnable action) {
        var item = Named.item(text);
        item.setOnAction(e -> action.run());
        return item;
    }

    private void copy() {
        session.study()
                .quantity(session.selected(Chosen.QUANTITY))
                .ifPresent(q ->
                        put(QuantitiesFile.json(new Definitions(session.study().quantities()).needs(q))));
    }

    private static void put(String text) {
        var content = new ClipboardContent();
        content.putString(text);
        Clipboard.getSystemClipboard().setContent(content);
    }

    void paste() {
        String text = Clipboard.getSystemClipboard().getString();
        if (text == null || text.isBlank()) {
            session.say("There is no text on the clipboard to paste.");
            return;
        }
        take(text, "The clipboard");
    }

    private void load() {
        File file = chooser("Quantities as JSON or as a table")
                .showOpenDialog(owner.getScene().getWindow());
        if (file != null) {
            try {
                take(Files.readString(file.toPath()), file.getName());
            } catch (IOException e) {
                session.say("The file " + file + " cannot be read; check that it is text and that you may read it.");
            }
        }
    }

    private void save() {
        FileChooser chooser = chooser("Quantities as JSON or as a table");
        chooser.setInitialFileName("quantities.json");
        File file = chooser.showSaveDialog(owner.getScene().getWindow());
        if (file != null) {
            save(file.toPath());
        }
    }

    /** As JSON, or as a table where the name ends in tsv or txt. */
    void save(Path file) {
        String name = file.getFileName().toString().toLowerCase(java.util.Locale.ROOT);
        boolean table = name.endsWith(".tsv") || name.endsWith(".txt");
        List<Quantity> all = session.study().quantities();
        String text = table ? QuantitiesFile.table(all) : QuantitiesFile.json(all);
        session.write(file, out -> out.write(text.getBytes(StandardCharsets.UTF_8)));
    }

    private static FileChooser chooser(String title) {
        var chooser = new FileChooser();
        chooser.setTitle(title);
        chooser.getExtensionFilters()
                .addAll(
                        new FileChooser.ExtensionFilter("JSON", "*.json"),
                        new FileChooser.ExtensionFilter("Table", "*.tsv", "*.txt"));
        return chooser;
    }

    /** Adds what is not there yet; another formula of a name that is there gets a name of its own. */
    void take(String text, String where) {
        try {
            List<Quantity> come = QuantitiesFile.read(text, where);
            session.edit("Take quantities", s -> s.withQuantities(have -> Merge.quantities(have, come)));
        } catch (LaneException e) {
            session.say(e.getMessage());
        }
    }
}
