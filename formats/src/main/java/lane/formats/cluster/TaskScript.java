package lane.formats.cluster;

import java.lang.management.ManagementFactory;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;

/** The script of a task: this program, started in the same way on another machine that sees the same files. */
final class TaskScript {
    private TaskScript() {}

    static String text(Path spread, int attempt) {
        List<String> command = new ArrayList<>();
        command.add(Path.of(System.getProperty("java.home"), "bin", "java").toString());
        command.add("-XX:+UseParallelGC");
        command.add("--enable-native-access=ALL-UNNAMED");
        command.add("--sun-misc-unsafe-memory-access=allow");
        command.add("-Djava.awt.headless=true");
        command.add("-Xlog:disable");
        command.add("-Xlog:all=error:stderr");
        ManagementFactory.getRuntimeMXBean().getInputArguments().stream()
                .filter(a -> a.startsWith("-XX:AOTCache="))
                .forEach(command::add);
        command.add("-XX:TieredStopAtLevel=4");
        // Whoever starts the program with options of their own has them in its tasks, too.
        String own = System.getenv().getOrDefault("LANE_JAVA", "").strip();
        command.addAll(own.isEmpty() ? List.of() : List.of(own.split("\\s+")));
        command.add("-cp");
        command.add(System.getProperty("java.class.path"));
        String quoted = command.stream().map(TaskScript::quoted).collect(Collectors.joining(" "));
        return """
                #!/bin/sh
                # Makes the pieces of one task of an evaluation; its number is that of the task in the array.
                cpus=${SLURM_CPUS_PER_TASK:-${SLURM_CPUS_ON_NODE:-1}}
                memory=
                if [ -n "${SLURM_MEM_PER_NODE:-}" ] && [ "$SLURM_MEM_PER_NODE" -gt 0 ]; then memory="-Xmx$((SLURM_MEM_PER_NODE * 3 / 4))m"; fi
                if [ -n "${SLURM_MEM_PER_CPU:-}" ] && [ "$SLURM_MEM_PER_CPU" -gt 0 ]; then memory="-Xmx$((SLURM_MEM_PER_CPU * cpus * 3 / 4))m"; fi
                export LANE_PLACE=cluster
                # shellcheck disable=SC2086  # No option where no memory is asked for.
                exec %s -XX:ActiveProcessorCount="$cpus" $memory lane.cli.Lane work %s --attempt %d --task "$SLURM_ARRAY_TASK_ID"
                """.formatted(quoted, quoted(spread.toString()), attempt);
    }

    /** A word of a shell, whatever stands in it. */
    private static String quoted(String word) {
        return "'" + word.replace("'", "'\\''") + "'";
    }
}
