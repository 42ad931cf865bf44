package lane.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.ByteArrayOutputStream;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import org.junit.jupiter.api.io.TempDir;

/** A folder for files, and verbs called with what they print. */
abstract class VerbCase {
    @TempDir
    Path folder;

    String out = "";
    String err = "";

    /** The exit code. */
    int run(String... args) {
        PrintStream outer = System.out;
        PrintStream errors = System.err;
        var bytes = new ByteArrayOutputStream();
        var told = new ByteArrayOutputStream();
        System.setOut(new PrintStream(bytes, true, StandardCharsets.UTF_8));
        System.setErr(new PrintStream(told, true, StandardCharsets.UTF_8));
        try {
            return Lane.run(args);
        } finally {
            System.setOut(outer);
            System.setErr(errors);
            out = bytes.toString(StandardCharsets.UTF_8);
            err = told.toString(StandardCharsets.UTF_8);
        }
    }

    /** What is printed as one line of JSON. */
    JsonNode json(String... args) throws Exception {
        assertThat(run(args)).as(err).isZero();
        assertThat(out.strip().lines().count()).isEqualTo(1);
        return new ObjectMapper().readTree(out);
    }

    String file(String name) {
        return folder.resolve(name).toString();
    }
}
