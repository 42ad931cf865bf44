package lane.desk.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;

class BaseStyleTest {
    /** To make the file anew after the theme changed, run this test with {@code -Dlane.write.style=true}. */
    @Test
    void theFileIsTheThemesRulesForTheControlsUsedHere() throws IOException {
        String made =
                BaseStyle.of(BaseStyle.read("/atlantafx/base/theme/primer-light.css"), BaseStyle.read("lane.css"));
        if (Boolean.getBoolean("lane.write.style")) {
            Files.writeString(Path.of("src/main/resources/lane/desk/app/base.css"), made);
        }
        assertThat(BaseStyle.read("base.css")).isEqualTo(made);
        assertThat(made).contains(".scroll-bar", ".combo-box-popup").doesNotContain("-color-accent", ".date-picker");
    }

    @Test
    void aColourIsPutInWhereItIsNoTokenOfTheWindow() {
        assertThat(BaseStyle.of(
                        ".root { -color-x: #123456; -color-y: -color-x; -fx-a: 1; }\n.label, .tab .label { -fx-c: -color-y; -fx-d: -color-fg-muted; }",
                        ".root { -muted: #778899; -hair: #aabbcc; -fx-size: 3; }"))
                .endsWith(
                        ".root {\n    -muted: #778899;\n    -hair: #aabbcc;\n}\n.root {\n    -fx-a: 1;\n}\n.label {\n    -fx-c: #123456;\n    -fx-d: -muted;\n}\n");
    }
}
