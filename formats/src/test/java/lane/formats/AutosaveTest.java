package lane.formats;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import lane.formats.study.Autosave;
import lane.formats.study.StudyJson;
import lane.study.Study;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class AutosaveTest {
    @TempDir
    Path folder;

    private final List<String> said = new ArrayList<>();

    @Test
    void whatCouldNotBeWrittenIsTriedAgainWithoutAnotherEdit() throws Exception {
        Path study = folder.resolve("tank.lane.json");
        var autosave = new Autosave(study, said::add);
        // A folder with something in it stands where the file should go.
        Path blocked = Files.createDirectory(Autosave.of(study));
        Files.writeString(blocked.resolve("in the way"), "");
        autosave.changed(Study.empty("tank"), true);
        autosave.write();
        autosave.write();
        assertThat(said).as("told once").hasSize(1);
        Files.delete(blocked.resolve("in the way"));
        Files.delete(blocked);
        autosave.write();
        assertThat(StudyJson.load(Autosave.of(study))).isEqualTo(Study.empty("tank"));
        assertThat(said).hasSize(1);
    }

    @Test
    void aStudyAsItWasSavedKeepsNone() throws Exception {
        Path study = folder.resolve("tank.lane.json");
        var autosave = new Autosave(study, said::add);
        autosave.changed(Study.empty("tank"), true);
        autosave.write();
        assertThat(Autosave.of(study)).exists();
        autosave.changed(Study.empty("tank"), false);
        autosave.write();
        assertThat(Autosave.of(study)).doesNotExist();
        autosave.changed(Study.empty("tank 2"), true);
        autosave.saving(() -> {});
        autosave.write();
        assertThat(Autosave.of(study)).doesNotExist();
        assertThat(said).isEmpty();
    }
}
