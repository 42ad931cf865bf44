package lane.study;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;
import lane.provenance.Data;
import lane.provenance.DataDiff;
import org.jspecify.annotations.Nullable;

/** What differs between two states of a study, in words: for whoever has to choose between them. */
public final class StudyDiff {
    private StudyDiff() {}

    /**
     * One phrase for each thing that differs, such as {@code station "gap" changed}; empty for equal studies.
     *
     * @param theirs what is told as added, where it alone has something
     */
    public static List<String> of(Study ours, Study theirs) {
        List<String> out = new ArrayList<>();
        if (!ours.name().equals(theirs.name())) {
            out.add("name \"" + theirs.name() + "\"");
        }
        compare("lane", ours.sources(), theirs.sources(), Source::id, Source::name, out);
        compare("frame", ours.frames(), theirs.frames(), f -> f.id(), f -> f.name(), out);
        compare("station", ours.stations(), theirs.stations(), s -> s.id(), s -> s.name(), out);
        compare("quantity", ours.quantities(), theirs.quantities(), q -> q.id(), q -> q.name(), out);
        compare("reading", ours.readings(), theirs.readings(), r -> r.id(), r -> r.name(), out);
        compare("check", ours.checks(), theirs.checks(), c -> c.id(), c -> c.id(), out);
        if (!ours.settings().equals(theirs.settings())) {
            out.add("settings changed");
        }
        if (!ours.pictures().equals(theirs.pictures())) {
            out.add("views or notes changed");
        }
        return out;
    }

    /** The same in detail for what decides numbers: each with what it was and what it is. */
    public static List<String> details(Study was, Study is) {
        List<String> out = new ArrayList<>();
        detail("lane", was.sources(), is.sources(), Source::name, out);
        detail("frame", was.frames(), is.frames(), f -> f.name(), out);
        detail("station", was.stations(), is.stations(), s -> s.name(), out);
        detail("quantity", was.quantities(), is.quantities(), q -> q.name(), out);
        detail("reading", was.readings(), is.readings(), r -> r.name(), out);
        detail("check", was.checks(), is.checks(), c -> c.id(), out);
        // Which lanes are shown decides no number.
        leaves(
                "settings",
                Data.of(was.settings().withOff(List.of())),
                Data.of(is.settings().withOff(List.of())),
                out);
        return out;
    }

    private static <T> void detail(String what, Keyed<T> was, Keyed<T> is, Function<T, String> name, List<String> out) {
        for (String key : was.keys()) {
            T before = was.find(key).orElseThrow();
            T after = is.find(key).orElse(null);
            if (after == null) {
                out.add(what + " \"" + name.apply(before) + "\" removed");
            } else {
                leaves(what + " \"" + name.apply(before) + "\"", Data.of(before), Data.of(after), out);
            }
        }
        for (String key : is.keys()) {
            if (was.find(key).isEmpty()) {
                out.add(what + " \"" + name.apply(is.find(key).orElseThrow()) + "\" added");
            }
        }
    }

    private static void leaves(String of, @Nullable Object was, @Nullable Object is, List<String> out) {
        DataDiff.of(was, is).forEach(d -> out.add(of + ": " + d));
    }

    private static <T> void compare(
            String what,
            Keyed<T> ours,
            Keyed<T> theirs,
            Function<T, String> key,
            Function<T, String> name,
            List<String> out) {
        int before = out.size();
        for (T t : theirs) {
            T o = ours.find(key.apply(t)).orElse(null);
            if (o == null) {
                out.add(what + " \"" + name.apply(t) + "\" added");
            } else if (!o.equals(t)) {
                out.add(what + " \"" + name.apply(t) + "\" changed");
            }
        }
        for (T o : ours) {
            if (theirs.find(key.apply(o)).isEmpty()) {
                out.add(what + " \"" + name.apply(o) + "\" removed");
            }
        }
        if (before == out.size() && !ours.keys().equals(theirs.keys())) {
            out.add("order of the " + (what.endsWith("y") ? what.substring(0, what.length() - 1) + "ies" : what + "s"));
        }
    }

    /** The same as one phrase that names the first few. */
    public static String words(Study ours, Study theirs) {
        List<String> all = of(ours, theirs);
        int told = Math.min(3, all.size());
        String first = String.join(", ", all.subList(0, told));
        return all.isEmpty() ? "nothing" : all.size() > told ? first + " and " + (all.size() - told) + " more" : first;
    }
}
