package lane.formats;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.Comparator;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.function.ToDoubleFunction;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import lane.base.Fault;
import lane.base.LaneException;
import lane.base.Work;
import lane.field.TimeSelector;
import lane.formats.grid.Dataset;
import lane.formats.grid.Opening;
import lane.formats.io.FileErrors;
import lane.formats.io.FileHash;
import lane.formats.io.FileNames;
import lane.formats.vtk.VtkXmlReader;

/**
 * Files of one run, one a time, told by a pattern: a file name with one {@code *} where they differ by a number. Their
 * times are what the files say; where one of them does not, the numbers in their names. Only the file of the wanted time
 * is read.
 *
 * @param files in the order of their times
 * @param times ascending
 * @param byName whether the times are the numbers in the names
 */
public record Series(Path pattern, List<Path> files, List<Double> times, boolean byName) {
    private static final int MOST = 100_000;
    private static final Pattern NUMBER = Pattern.compile("[-+]?\\d+(?:\\.\\d+)?(?:[eE][-+]?\\d+)?");

    /** The files of these times, without those that it has not. */
    List<Path> at(double[] wanted) {
        return Arrays.stream(wanted)
                .mapToInt(time -> Collections.binarySearch(times, time))
                .filter(i -> i >= 0)
                .mapToObj(files::get)
                .toList();
    }

    public static boolean is(Path file) {
        return String.valueOf(file.getFileName()).indexOf('*') >= 0;
    }

    private record One(Path file, double number) {}

    /** @throws LaneException when no file fits the pattern */
    public static Series of(Path pattern) {
        return of(pattern, Series::stored);
    }

    /** @param stored the time that a file says it holds, NaN for none: asked at most once of each file */
    static Series of(Path pattern, ToDoubleFunction<Path> stored) {
        List<One> found = found(pattern);
        if (found.isEmpty() || found.size() > MOST) {
            throw new LaneException(
                    Fault.NOT_READ,
                    "The pattern " + pattern.getFileName() + " fits " + found.size()
                            + " files with a number in place of the *; correct it or the folder.");
        }
        List<One> timed = new ArrayList<>();
        for (One one : found) {
            double t = stored.applyAsDouble(one.file);
            if (Double.isNaN(t)) {
                break;
            }
            timed.add(new One(one.file, t));
        }
        boolean byName = timed.size() < found.size();
        List<One> all = byName ? found : timed;
        all.sort(Comparator.comparingDouble(One::number));
        return new Series(
                pattern,
                all.stream().map(One::file).toList(),
                all.stream().map(One::number).toList(),
                byName);
    }

    private static List<One> found(Path pattern) {
        String name = String.valueOf(pattern.getFileName());
        int star = name.indexOf('*');
        if (name.indexOf('*', star + 1) >= 0) {
            throw new LaneException("The pattern " + name + " has more than one *; give one, where the number stands.");
        }
        String before = name.substring(0, star);
        String after = name.substring(star + 1);
        List<One> found = new ArrayList<>();
        Path folder = Objects.requireNonNull(pattern.toAbsolutePath().getParent());
        try (Stream<Path> all = Files.list(folder)) {
            all.limit(10L * MOST).forEach(p -> {
                String n = p.getFileName().toString();
                if (n.length() > before.length() + after.length() && n.startsWith(before) && n.endsWith(after)) {
                    String middle = n.substring(before.length(), n.length() - after.length());
                    if (NUMBER.matcher(middle).matches()) {
                        found.add(new One(p, Double.parseDouble(middle)));
                    }
                }
            });
        } catch (IOException e) {
            throw FileHash.unreadable(folder, e);
        }
        found.sort(Comparator.comparingDouble(One::number).thenComparing(One::file));
        return found;
    }

    /** The files that fit a pattern now, in the order of the numbers in their names. */
    static List<Path> files(Path pattern) {
        return found(pattern).stream().map(One::file).toList();
    }
    /** The time that a file says it holds; NaN when it does not say. */
    static double stored(Path file) {
        try {
            return List.of("vtu", "vtp", "vti", "vtr", "vts").contains(FileNames.ending(file))
                    ? VtkXmlReader.time(file)
                    : Double.NaN;
        } catch (LaneException e) {
            // Its own fault is told when it is the one to be read.
            return Double.NaN;
        }
    }

    Dataset open(TimeSelector moment, Opening opening, Work work) {
        int at = FileErrors.of(pattern, () -> moment.in(times));
        Dataset one = DatasetReader.open(files.get(at), TimeSelector.LAST, opening, work);
        List<Path> read = new ArrayList<>(one.files());
        read.add(files.get(at));
        List<String> remarks = new ArrayList<>(one.remarks());
        if (byName) {
            remarks.add("The files do not say their times; the numbers in their names are taken.");
        }
        return new Dataset(
                one.mesh(),
                one.fields(),
                one.groups(),
                times,
                times.get(at),
                remarks,
                read,
                one.labels(),
                one.metres(),
                one.pieces());
    }

    /**
     * The pattern that a file and others beside it fit, which differ by the last number in their names; empty when it
     * stands alone.
     */
    public static Optional<String> around(Path file) {
        String name = String.valueOf(file.getFileName());
        int dot = name.lastIndexOf('.');
        Matcher m = Pattern.compile("\\d+").matcher(dot < 0 ? name : name.substring(0, dot));
        int from = -1;
        int to = -1;
        while (m.find()) {
            from = m.start();
            to = m.end();
        }
        if (from < 0) {
            return Optional.empty();
        }
        Path pattern = Path.of(name.substring(0, from) + "*" + name.substring(to));
        try (Stream<Path> all = Files.list(file.toAbsolutePath().getParent())) {
            String regex = Pattern.quote(name.substring(0, from)) + "\\d+" + Pattern.quote(name.substring(to));
            long fit = all.limit(10L * MOST)
                    .filter(p -> p.getFileName().toString().matches(regex))
                    .count();
            return fit > 1 ? Optional.of(pattern.toString()) : Optional.empty();
        } catch (IOException e) {
            return Optional.empty();
        }
    }
}
