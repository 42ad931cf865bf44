package lane.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.TimeUnit;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** The launchers as texts: they must run where engineers work, also on macOS with its bash 3.2 and its own tools. */
class LauncherTest {
    private static final Path BASH = Path.of("../lane");
    private static final Path PACK = Path.of("../tools/pack.sh");
    private static final Path CMD = Path.of("../lane.cmd");

    /** The script without comments and without the text of its help. */
    private static String code() throws IOException {
        String text =
                (Files.readString(BASH) + Files.readString(PACK)).replaceAll("(?s)cat <<'TEXT'.*?\\nTEXT\\n", "\n");
        return text.lines().filter(l -> !l.strip().startsWith("#")).collect(Collectors.joining("\n"));
    }

    /** What bash 3.2 or the tools of macOS do not know. */
    @ParameterizedTest
    @ValueSource(
            strings = {
                "-printf",
                "readlink -f",
                "\\bmapfile\\b",
                "\\breadarray\\b",
                "declare -A",
                "local -n",
                "\\$\\{\\w+(\\^\\^?|,,?)\\}",
                "&>>",
                "\\|&",
                "\\bcoproc\\b",
                "sed -i",
                "grep -P",
                "\\bstat -",
                "date -d",
                "(?<!command -v )(?<!then )\\btimeout\\b",
                "\\[\\[ -v"
            })
    void onlyWhatTheOldestBashAndAllSystemsKnow(String pattern) throws IOException {
        assertThat(Pattern.compile(pattern).matcher(code()).results().map(r -> r.group()))
                .as(pattern)
                .isEmpty();
    }

    /** Under set -u an empty array is an error in bash before 4.4 unless it is guarded. */
    @Test
    void arraysThatMayBeEmptyAreGuarded() throws IOException {
        var unguarded = Pattern.compile("(?<!\\+)\"\\$\\{(\\w+)\\[@\\]\\}\"").matcher(code());
        // These always have entries.
        assertThat(unguarded.results().map(r -> r.group(1)))
                .isSubsetOf("options", "headless", "files", "late_compiler");
    }

    @Test
    void theScriptIsSound() throws Exception {
        Assumptions.assumeTrue(Files.isExecutable(Path.of("/bin/bash")), "no bash here");
        assertThat(run("/bin/bash", "-n", BASH.toString())).isEmpty();
        assertThat(run("/bin/bash", "-n", PACK.toString())).isEmpty();
    }

    /** What stands in no file is made anew; a mark of a training that the machine's end interrupted does not stand in its way. */
    @Test
    void aTrainingThatWasInterruptedIsNotWaitedForEver(@TempDir Path app) throws Exception {
        Assumptions.assumeTrue(Files.isExecutable(Path.of("/bin/bash")), "no bash here");
        String asked =
                "app=$0; set -u; eval \"$(sed -n '/^in_training()/,/^}/p' \"$1\")\"; in_training && echo yes || echo no";
        String[] command = {"/bin/bash", "-c", asked, app.toString(), BASH.toString()};

        assertThat(run(command)).as("none").isEqualTo("no\n");
        Path mark = Files.createDirectory(app.resolve(".training"));
        assertThat(run(command)).as("just begun").isEqualTo("yes\n");
        Files.setLastModifiedTime(mark, FileTime.from(Instant.now().minus(Duration.ofMinutes(25))));
        assertThat(run(command)).as("left behind").isEqualTo("no\n");
    }

    @Test
    void shellcheckFindsNothing() throws Exception {
        Assumptions.assumeTrue(Files.isExecutable(Path.of("/usr/bin/shellcheck")), "shellcheck is not installed");
        assertThat(run("/usr/bin/shellcheck", "-S", "warning", "-s", "bash", "-x", BASH.toString(), PACK.toString()))
                .isEmpty();
    }

    private static String run(String... command) throws Exception {
        Process p = new ProcessBuilder(command).redirectErrorStream(true).start();
        String out = new String(p.getInputStream().readAllBytes());
        assertThat(p.waitFor(60, TimeUnit.SECONDS)).isTrue();
        return out;
    }

    /** Every verb of one launcher is one of the other. */
    @Test
    void bothLaunchersHaveTheSameVerbs() throws IOException {
        List<String> verbs = Pattern.compile("(?m)^  \\./lane (\\w+)")
                .matcher(Files.readString(BASH))
                .results()
                .map(r -> r.group(1))
                .distinct()
                .toList();
        assertThat(verbs).contains("demo", "evaluate", "test", "package");
        String cmd = Files.readString(CMD);
        assertThat(Pattern.compile("\"%VERB%\"==\"(\\w+)\"")
                        .matcher(cmd)
                        .results()
                        .map(r -> r.group(1))
                        .distinct())
                .containsExactlyInAnyOrderElementsOf(verbs.stream().distinct().toList());
        for (String verb : verbs) {
            assertThat(cmd.lines().filter(l -> l.contains("echo lane ")).collect(Collectors.joining()))
                    .as("help of lane.cmd")
                    .containsPattern("\\b" + verb + "\\b");
        }
    }

    /** Both fetch the same Maven by the same sum, where there is none. */
    @Test
    void bothLaunchersFetchTheSameMaven() throws IOException {
        String bash = Files.readString(BASH);
        String cmd = Files.readString(CMD);
        for (String what : List.of("version", "sum")) {
            String one = value(bash, "maven_" + what + "=\"?([^\"\\s]+)\"?");
            assertThat(value(cmd, "\"MAVEN_" + what.toUpperCase(Locale.ROOT) + "=([^\"]+)\""))
                    .as(what)
                    .isEqualTo(one);
        }
        String from =
                value(bash, "maven_from=\"?([^\"\\s]+)\"?").replaceAll("\\$\\{?maven_version}?", "%MAVEN_VERSION%");
        assertThat(cmd).contains("set \"MAVEN_FROM=" + from + "\"");
        // Each label that is called is there, and nothing runs into it.
        assertThat(cmd).contains("call :maven ||").containsPattern("exit /b 1\\R\\R(rem [^\\n]*\\R)?:maven\\R");
    }

    private static String value(String text, String pattern) {
        var found = Pattern.compile(pattern).matcher(text);
        assertThat(found.find()).as(pattern).isTrue();
        return found.group(1);
    }
}
