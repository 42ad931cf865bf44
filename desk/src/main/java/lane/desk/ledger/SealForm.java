package lane.desk.ledger;

import java.nio.file.Path;
import java.time.Instant;
import java.util.function.Consumer;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.PasswordField;
import javafx.scene.control.TextArea;
import javafx.scene.control.TextField;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.stage.FileChooser;
import javafx.stage.Popup;
import lane.desk.LongWork;
import lane.desk.Ui;
import lane.formats.io.FileNames;
import lane.formats.ledger.Seal;
import org.jspecify.annotations.Nullable;

/** Seals a ledger: who, what they state, and a key to sign with where they have one. */
final class SealForm {
    private static final double WIDE = 380;

    private final Popup popup = new Popup();
    private final Label told = Ui.label("", "second");
    private final TextField name = new TextField();
    private final TextArea statement = new TextArea();
    private final PasswordField password = new PasswordField();
    private final Label key = Ui.label("no key: a seal without a signature", "second", "muted");
    private final Button go = Ui.button("Seal", this::seal, "main");
    private final Path folder;
    private final Consumer<Seal> then;
    private final LongWork work;
    private @Nullable Path keyFile;

    SealForm(Path folder, Consumer<Seal> then) {
        this.folder = folder;
        this.then = then;
        work = new LongWork("Sealing the ledger", told::setText, go::setDisable);
        name.setId("seal-name");
        name.setPromptText("your name");
        name.setText(System.getProperty("user.name", ""));
        statement.setId("seal-statement");
        statement.setPromptText("such as: reviewed, and accepted for release");
        statement.setPrefRowCount(2);
        statement.setWrapText(true);
        statement.setPrefWidth(WIDE - 100);
        password.setId("seal-password");
        password.setDisable(true);
        password.setPromptText("of the key");
        key.setMaxWidth(WIDE - 190);
        go.setId("seal-go");
        told.setId("seal-told");
        told.setWrapText(true);
        told.setMaxWidth(WIDE);
        told.setMinHeight(Region.USE_PREF_SIZE);
        var box = new VBox(
                10,
                Ui.label("Seal the ledger in " + FileNames.brief(folder), "section"),
                row("Name", name),
                row("Statement", statement),
                row("Signed with", Ui.button("Key…", this::choose, "small-button"), key),
                row("Password", password),
                told,
                Ui.row(8, go, Ui.button("Close", popup::hide)));
        box.getStyleClass().add("tooltip-card");
        box.setStyle("-fx-padding: 14;");
        box.setPrefWidth(WIDE + 28);
        popup.getContent().add(box);
        popup.setAutoHide(false);
        popup.setHideOnEscape(true);
    }

    private static Node row(String word, Node... nodes) {
        var row = Ui.row(8, Ui.left(word, 92, "second"));
        row.getChildren().addAll(nodes);
        return row;
    }

    void show(Node beside) {
        var at = beside.localToScreen(60, 60);
        popup.show(beside.getScene().getWindow(), at.getX(), at.getY());
        name.requestFocus();
    }

    private void choose() {
        var chooser = new FileChooser();
        chooser.setTitle("An OpenPGP secret key or a PKCS#12 key store");
        var file = chooser.showOpenDialog(popup.getOwnerWindow());
        if (file != null) {
            keyed(file.toPath());
        }
    }

    void keyed(Path file) {
        keyFile = file;
        key.setText(FileNames.brief(file));
        password.setDisable(false);
    }

    private void seal() {
        char[] opens = password.getText().toCharArray();
        String who = name.getText();
        String says = statement.getText();
        told.setText("");
        work.start(w -> Seal.on(folder, who, says, Instant.now(), keyFile, opens), made -> {
            popup.hide();
            then.accept(made);
        });
    }
}
