package lane.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import lane.demo.DemoFiles;
import org.junit.jupiter.api.Test;

/** The examples of docs/COMMAND-LINE.md are run as they stand there and end with the code that it says. */
class CommandLinePageTest extends VerbCase {
    private static final Pattern EXAMPLE = Pattern.compile("(?m)^\\./lane (.*?)\\s*#\\s*(\\d)$");
    private static final Pattern WORD = Pattern.compile("\"([^\"]*)\"|(\\S+)");

    private List<String> words(String line) {
        List<String> out = new ArrayList<>();
        Matcher m = WORD.matcher(line.replaceFirst("\\s>\\s.*$", ""));
        while (m.find()) {
            String word = m.group(1) != null ? m.group(1) : m.group(2);
            out.add(word.replace("build/demo/study", file("study"))
                    .replaceFirst("(^|=)out/", "$1" + file("out") + "/"));
        }
        return out;
    }

    @Test
    void theExamplesOfThePageRun() throws Exception {
        DemoFiles.make(folder.resolve("study"), DemoFiles.SMALL);
        Files.createDirectories(folder.resolve("out"));
        String page = Files.readString(Path.of("../docs/COMMAND-LINE.md"));
        Matcher m = EXAMPLE.matcher(page);
        var verbs = new TreeSet<String>();
        int n = 0;
        while (m.find()) {
            List<String> args = words(m.group(1));
            assertThat(run(args.toArray(String[]::new)))
                    .as("%s%n%s%n%s", m.group(1), out, err)
                    .isEqualTo(Integer.parseInt(m.group(2)));
            verbs.add(args.getFirst());
            n++;
        }
        assertThat(n)
                .isEqualTo(page.lines().filter(l -> l.startsWith("./lane ")).count());
        assertThat(verbs)
                .contains("evaluate", "verify", "compare", "seal", "report", "convert", "completion", "manual");
        // What a shell and man are given.
        try (var pages = Files.list(folder.resolve("out/man"))) {
            for (Path p : pages.toList()) {
                String text = Files.readString(p);
                assertThat(text).startsWith(".TH \"LANE").contains(".SH NAME", ".SH SYNOPSIS");
                assertThat(text.lines()
                                .filter(l -> l.startsWith("."))
                                .map(l -> l.split(" ")[0])
                                .distinct()
                                .toList())
                        .isSubsetOf(".TH", ".SH", ".TP", ".B", ".I", ".BR");
            }
        }
        assertThat(folder.resolve("out/man/lane-verify.1")).content().contains("\\-\\-look\\-in", "EXIT STATUS");
        run("completion");
        assertThat(out).contains("complete -F", "verify", "--look-in");
    }
}
