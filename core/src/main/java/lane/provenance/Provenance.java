package lane.provenance;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * How a result came about, from the files to the number, in the order of the chain.
 *
 * @param inputs the files that were read, by content
 * @param steps source, quantity, station, reading, check: each in words and with its settings
 */
public record Provenance(List<Input> inputs, List<Step> steps) {
    public static final Provenance EMPTY = new Provenance(List.of(), List.of());

    public Provenance {
        inputs = List.copyOf(inputs);
        steps = List.copyOf(steps);
    }

    /**
     * A file by content.
     *
     * @param path as the study names it
     * @param sha256 lower-case hexadecimal digits
     * @param bytes size of the file
     */
    public record Input(String path, String sha256, long bytes) {
        /** The file's name and the first digits of its hash, for a line of text. */
        public String brief() {
            String name = path.substring(Math.max(path.lastIndexOf('/'), path.lastIndexOf('\\')) + 1);
            return name + " " + sha256.substring(0, Math.min(4, sha256.length())) + "…";
        }
    }

    /**
     * One link of the chain.
     *
     * @param stop source, quantity, station, reading or check
     * @param text in words, as the trail strip shows it; made from the settings
     * @param method how it is done, and in which version
     * @param settings every setting that the number depends on, as {@link Data} in a stable order
     */
    public record Step(String stop, String text, Method method, Map<String, Object> settings) {
        public Step {
            settings = Data.map(settings);
        }
    }

    private static final Pattern PLACE = Pattern.compile("\\{([^}]+)}");

    /**
     * This trail with one more step at its end.
     *
     * @param sentence the step in words, with {@code {name}} where a setting stands
     * @param settings definitions and facts; they become {@link Data}
     * @throws IllegalArgumentException when the sentence names a setting that is not there: it is made from data only
     */
    public Provenance then(String stop, Method method, String sentence, Map<String, ?> settings) {
        Map<String, Object> data = Data.map(settings);
        String text = PLACE.matcher(sentence).replaceAll(m -> {
            Object value = data.get(m.group(1));
            if (value == null) {
                throw new IllegalArgumentException("no setting \"" + m.group(1) + "\" for \"" + sentence + "\"");
            }
            return Matcher.quoteReplacement(String.valueOf(value));
        });
        return then(new Step(stop, text, method, data));
    }

    /** This trail with a step of another one at its end. */
    public Provenance then(Step step) {
        var longer = new ArrayList<>(steps);
        longer.add(step);
        return new Provenance(inputs, longer);
    }

    /** This trail with more files. */
    public Provenance reading(List<Input> files) {
        return with(new Provenance(files, List.of()));
    }

    /** The inputs of both trails, each once, and the steps of this one. */
    public Provenance with(Provenance other) {
        var all = new java.util.LinkedHashSet<>(inputs);
        all.addAll(other.inputs);
        return new Provenance(List.copyOf(all), steps);
    }
}
