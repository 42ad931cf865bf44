package lane.provenance;

import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;

/**
 * How a result came about, from the files to the number, in the order of the chain.
 *
 * @param inputs the files that were read, by content
 * @param steps source, quantity, station, reading, check: each in words and with its settings
 * @param others how the results of other lanes came about that it was compared with; their files are among the inputs
 */
public record Provenance(List<Input> inputs, List<Step> steps, List<Other> others) {
    public static final Provenance EMPTY = new Provenance(List.of(), List.of());

    /** The steps of what tells its files alone. */
    private static final List<Step> UNTOLD = Collections.unmodifiableList(new ArrayList<>());

    public Provenance {
        inputs = List.copyOf(inputs);
        steps = told(steps) ? List.copyOf(steps) : UNTOLD;
        others = List.copyOf(others);
    }

    public Provenance(List<Input> inputs, List<Step> steps) {
        this(inputs, steps, List.of());
    }

    /**
     * One that gathers files and leaves out what was done with them: for a number that is one of thousands, of which the last
     * tells how all came about.
     */
    public static Provenance ofFiles(List<Input> inputs) {
        return new Provenance(inputs, UNTOLD);
    }

    // The very list stands for it: one that equals it is that of a trail which begins.
    @SuppressWarnings("ReferenceEquality")
    private static boolean told(List<Step> steps) {
        return steps != UNTOLD;
    }

    /** Whether steps are kept, and not files alone. */
    public boolean told() {
        return told(steps);
    }

    /** Whether each file that was read is known by its content. */
    public boolean proved() {
        return inputs.stream().allMatch(Input::proved);
    }

    /**
     * Another result that this one rests on.
     *
     * @param as what it is to this one, such as {@code datum theory}
     * @param at place of the step that takes it, counted from 0
     */
    public record Other(String as, int at, List<Step> steps) {
        public Other {
            steps = List.copyOf(steps);
        }
    }

    /**
     * A file by content.
     *
     * @param path as the study names it
     * @param sha256 lower-case hexadecimal digits; blank where it is not known yet
     * @param bytes size of the file
     */
    public record Input(String path, String sha256, long bytes) {
        /** Whether its content is known. */
        public boolean proved() {
            return !sha256.isBlank();
        }

        /** The file's name and the first digits of its hash, for a line of text. */
        public String brief() {
            String name = path.substring(Math.max(path.lastIndexOf('/'), path.lastIndexOf('\\')) + 1);
            return proved()
                    ? name + " " + sha256.substring(0, Math.min(4, sha256.length())) + "…"
                    : name + ", not proved yet";
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
        if (!told()) {
            return this;
        }
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
        if (!told()) {
            return this;
        }
        var longer = new ArrayList<>(steps);
        longer.add(step);
        return new Provenance(inputs, longer, others);
    }

    /** Whether it rests on a number that somebody typed, in place of one that was read or computed. */
    public boolean typed() {
        return Stream.concat(steps.stream(), others.stream().flatMap(o -> o.steps.stream()))
                .anyMatch(s -> s.method().equals(Method.TYPED));
    }

    /** This trail with more files. */
    public Provenance reading(List<Input> files) {
        return with(new Provenance(files, List.of()));
    }

    /** The inputs of both trails, each once, and the steps of this one. */
    public Provenance with(Provenance other) {
        if (other.inputs.isEmpty()) {
            return this;
        }
        var all = new LinkedHashSet<>(inputs);
        all.addAll(other.inputs);
        return new Provenance(List.copyOf(all), steps, others);
    }

    /** Both trails, one after the other, where a result is made of two alike. */
    public Provenance and(Provenance other) {
        if (!told()) {
            return with(other);
        }
        var all = new ArrayList<>(steps);
        all.addAll(other.steps);
        var beside = new LinkedHashSet<>(others);
        other.others.forEach(o -> beside.add(new Other(o.as, o.at + steps.size(), o.steps)));
        return new Provenance(with(other).inputs, all, List.copyOf(beside));
    }

    /** The inputs of both trails, and how the other one came about beside this one. */
    public Provenance beside(String as, Provenance other) {
        if (!told()) {
            return with(other);
        }
        var all = new LinkedHashSet<>(others);
        if (!other.steps.isEmpty()) {
            all.add(new Other(as, steps.size(), other.steps));
        }
        // What the other one rests on is taken where it is.
        other.others.forEach(o -> all.add(new Other(o.as, steps.size(), o.steps)));
        return new Provenance(with(other).inputs, steps, List.copyOf(all));
    }
}
