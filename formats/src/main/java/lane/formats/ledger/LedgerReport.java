package lane.formats.ledger;

import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Collectors;
import lane.base.LaneException;
import lane.base.Work;
import lane.formats.io.AtomicFile;
import lane.formats.io.FileNames;
import lane.study.Results;

/** One file of a ledger alone, such as its pages, without the folder around it. */
public final class LedgerReport {
    private LedgerReport() {}

    /** @throws LaneException naming the endings there are, when a report is not written into a file of that name */
    public static LedgerFormat format(Path file) {
        String ending = FileNames.ending(file);
        return one().filter(f -> ending.equals(ending(f)))
                .findFirst()
                .orElseThrow(() -> new LaneException("A report is written as "
                        + one().map(f -> "." + ending(f)).collect(Collectors.joining(", ")) + "; \""
                        + file.getFileName() + "\" ends otherwise."));
    }

    private static java.util.stream.Stream<LedgerFormat> one() {
        return Arrays.stream(LedgerFormat.values()).filter(f -> f != LedgerFormat.FIGURES);
    }

    private static String ending(LedgerFormat f) {
        return f.file().substring(f.file().lastIndexOf('.') + 1);
    }

    /** Writes each of the files in the format that its name tells. */
    public static void write(Results results, List<Path> files, Made made, LedgerWriter.Drawing drawing, Work work) {
        boolean drawn = files.stream().map(LedgerReport::format).anyMatch(LedgerFormat::figures);
        Export export = LedgerWriter.export(results, made, drawn ? drawing : (r, w) -> List.of(), work.stretch(0, 0.7));
        for (Path file : files) {
            work.poll();
            work.progress("Writing " + file.getFileName(), 0.7);
            format(file).write((name, body) -> AtomicFile.write(file, body), export);
        }
    }
}
