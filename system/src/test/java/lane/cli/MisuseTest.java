package lane.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

/** Every verb, given what it cannot use: one clear sentence, the exit code for it, nothing written, and no fault of the program. */
class MisuseTest {
    @TempDir
    static Path folder;

    private record Run(int code, String out, String err) {}

    private static Run run(List<String> args) {
        PrintStream keptOut = System.out;
        PrintStream keptErr = System.err;
        var out = new ByteArrayOutputStream();
        var err = new ByteArrayOutputStream();
        try {
            System.setOut(new PrintStream(out, true, StandardCharsets.UTF_8));
            System.setErr(new PrintStream(err, true, StandardCharsets.UTF_8));
            int code = Lane.run(args.toArray(String[]::new));
            return new Run(code, out.toString(StandardCharsets.UTF_8), err.toString(StandardCharsets.UTF_8));
        } finally {
            System.setOut(keptOut);
            System.setErr(keptErr);
        }
    }

    /** What stands where a file is asked for: none, a folder, an empty one, and three that hold something else. */
    private static final List<String> WRONG = List.of(
            "none.vtu",
            "folder",
            "empty.vtu",
            "empty.csv",
            "noise.vtu",
            "noise.csv",
            "noise.lane.json",
            "words.csv",
            "cut.vtu");

    @BeforeAll
    static void files() throws Exception {
        Files.createDirectories(folder.resolve("folder"));
        Files.createDirectories(folder.resolve("out"));
        Files.write(folder.resolve("empty.vtu"), new byte[0]);
        Files.write(folder.resolve("empty.csv"), new byte[0]);
        byte[] noise = new byte[5000];
        new Random(3).nextBytes(noise);
        for (String name : List.of("noise.vtu", "noise.csv", "noise.lane.json")) {
            Files.write(folder.resolve(name), noise);
        }
        Files.writeString(folder.resolve("words.csv"), "name,colour\ndoor,red\nlid,blue\n");
        Files.writeString(
                folder.resolve("cut.vtu"),
                "<?xml version=\"1.0\"?><VTKFile type=\"UnstructuredGrid\"><UnstructuredGrid><Piece NumberOfPoints=\"4\"");
    }

    /** Each verb with all that it needs; FILE stands for a wrong file, OUT for where it would write. */
    private static final List<String> CALLS = List.of(
            "evaluate FILE --out OUT",
            "attach FILE",
            "verify FILE",
            "compare FILE FILE",
            "seal FILE --name Lund",
            "report FILE --out OUT.pdf",
            "describe FILE",
            "describe FILE --json",
            "sample FILE --line 0,0,0|1,0,0 --fields T --csv OUT.csv",
            "sample FILE --points FILE --fields T --csv OUT.csv",
            "fit FILE --x a --y b",
            "settle FILE --column a --json",
            "integrate FILE --over all --of T --kind mean",
            "integrate FILE --over section:0,0,0|1,0,0 --of T --kind flow --json",
            "transfer FILE FILE --fields T --out OUT.vtu",
            "convert FILE OUT.vtu",
            "convert FILE OUT.csv --all-times",
            "history FILE --of T --over all --kind mean --json",
            "picture FILE --colour T --out OUT.png",
            "chart FILE r1 --out OUT.svg");

    static Stream<Arguments> calls() {
        return CALLS.stream().flatMap(call -> WRONG.stream().map(file -> Arguments.of(call, file)));
    }

    private static List<String> words(String call, String file) {
        List<String> out = new ArrayList<>();
        for (String word : call.split(" ")) {
            out.add(word.replace("FILE", folder.resolve(file).toString())
                    .replace("OUT", folder.resolve("out/made").toString())
                    .replace('|', ' '));
        }
        return out;
    }

    private static void told(Run r, String what) {
        assertThat(r.code()).as("%s%n%s%n%s", what, r.out(), r.err()).isEqualTo(3);
        String all = r.err() + r.out();
        assertThat(all)
                .as(what)
                .doesNotContain("Exception", "\tat ", "null", "fault of the program", "java.", "Input length");
        assertThat(r.err().strip()).as(what).isNotEmpty();
        for (String line : r.err().strip().split("\n")) {
            assertThat(line).as("%s%n%s", what, r.err()).matches("(?s).*[.?]\"?|.*--help tells how it is used\\.");
            assertThat(line.length()).as(line).isLessThan(600);
        }
    }

    @ParameterizedTest
    @MethodSource("calls")
    void aWrongFileIsNamedInOneSentence(String call, String file) throws Exception {
        Run r = run(words(call, file));
        // What is described is described, and what cannot be is said among it, so that one broken file stops no others.
        boolean described = call.startsWith("describe");
        boolean json = described && call.contains("--json");
        int from = json ? 0 : r.out().indexOf('\n') + 1;
        Run told = described ? new Run(r.code(), "", r.out().substring(from)) : r;
        if (!json) {
            told(told, call + " with " + file);
        }
        // Which file, so that one finds it among many; where already the options do not go with a table, no file is
        // read.
        if (!call.startsWith("convert") || !file.endsWith("csv")) {
            assertThat(told.err()).as("%s with %s", call, file).contains(file);
        }
        try (Stream<Path> made = Files.list(folder.resolve("out"))) {
            assertThat(made.map(p -> p.getFileName().toString())
                            .filter(n -> !n.equals("made") || !call.startsWith("evaluate")))
                    .as("%s with %s wrote", call, file)
                    .isEmpty();
        }
    }

    @Test
    void everyVerbRefusesWhatItDoesNotKnowAndProposesWhatComesNear() {
        for (String call : CALLS) {
            List<String> args = words(call, "none.vtu");
            args.add("--quite-wrong");
            told(run(args), call + " --quite-wrong");
            assertThat(run(args).err()).as(call).contains("--quite-wrong");
        }
        assertThat(run(List.of("integrate", "a.vtu", "--ovr", "all")).err()).contains("--over");
        assertThat(run(List.of("evalute", "a.lane.json")).err()).contains("evaluate");
    }

    /** What is needed and is not there is asked for by its name. */
    @Test
    void whatIsMissingIsNamed() {
        for (String call : CALLS) {
            String[] words = call.split(" ");
            for (int i = 1; i < words.length; i++) {
                if (words[i].startsWith("--") && !words[i].equals("--json") && !words[i].equals("--all-times")) {
                    List<String> args = words(call, "none.vtu");
                    args.remove(i + 1);
                    args.remove(i);
                    Run r = run(args);
                    told(r, String.join(" ", args));
                }
            }
            told(run(List.of(words[0])), words[0] + " alone");
        }
    }

    /** Numbers and choices that are none. */
    @ParameterizedTest
    @MethodSource("values")
    void aValueThatIsNoneIsTold(String call, String about) {
        Run r = run(Arrays.asList(
                call.replace("OUT", folder.resolve("out/made").toString()).split(" ")));
        told(r, call);
        assertThat(r.err()).as(call).contains(about);
    }

    static Stream<Arguments> values() {
        return Stream.of(
                Arguments.of("converge --h 1,2,x --values 1,2,3", "x"),
                Arguments.of("converge --h 1,2 --values 1,2,3", "3"),
                Arguments.of("converge --h 1,-2,4 --values 1,2,3", "2"),
                Arguments.of("converge --h 1,1,2 --values 1,2,3", "1"),
                Arguments.of("fit a.csv --x a --y b --degree many", "many"),
                Arguments.of("settle a.csv --column a --window 1.5x", "1.5x"),
                Arguments.of("integrate a.vtu --over all --of T --kind most", "most"),
                Arguments.of("history a.vtu --over all --of T --kind most", "most"),
                Arguments.of("evaluate a.lane.json --out OUT --on moon", "a.lane.json"),
                Arguments.of("picture a.vtu --colour T --from sideways --out OUT.png", "sideways"),
                Arguments.of("convert a.vtu OUT.docx", "docx"),
                Arguments.of("report a.lane.json --out OUT.docx", "docx"),
                Arguments.of("chart a.lane.json r --out OUT.bmp", "bmp"),
                Arguments.of("sample a.vtu --line 0,0,0 --fields T --csv OUT.csv", "0,0,0"));
    }
}
