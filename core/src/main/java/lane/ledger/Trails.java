package lane.ledger;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import lane.provenance.DataDiff;
import lane.provenance.Provenance;
import lane.provenance.Provenance.Input;
import lane.provenance.Provenance.Other;
import lane.provenance.Provenance.Step;

/** How the trails of one number differ: by the content of files, by definitions, or by the versions of methods. */
final class Trails {
    private static final int MOST = 4;

    private Trails() {}

    /** One sentence for each difference; empty where there is none. */
    static List<String> differ(Provenance was, Provenance is) {
        Set<String> out = new LinkedHashSet<>(inputs(was.inputs(), is.inputs()));
        steps(was.steps(), is.steps(), "", out);
        // A ledger of an older version told nothing of others.
        for (Other other : was.others()) {
            is.others().stream()
                    .filter(o -> o.as().equals(other.as()))
                    .findFirst()
                    .ifPresent(o -> steps(other.steps(), o.steps(), other.as() + ": ", out));
        }
        return new ArrayList<>(out);
    }

    private static void steps(List<Step> was, List<Step> is, String of, Set<String> out) {
        for (int i = 0; i < Math.max(was.size(), is.size()); i++) {
            if (i >= was.size()) {
                out.add("definition changed: " + of + is.get(i).stop() + " \""
                        + is.get(i).text() + "\" is new");
            } else if (i >= is.size()) {
                out.add("definition changed: " + of + was.get(i).stop() + " \""
                        + was.get(i).text() + "\" is gone");
            } else {
                steps(was.get(i), is.get(i), of, out);
            }
        }
    }

    private static List<String> inputs(List<Input> was, List<Input> is) {
        Map<String, String> now = new LinkedHashMap<>();
        is.forEach(i -> now.put(i.path(), i.sha256()));
        List<String> out = new ArrayList<>();
        for (Input input : was) {
            String hash = now.remove(input.path());
            boolean elsewhere = is.stream().anyMatch(i -> i.sha256().equals(input.sha256()));
            if (hash == null && !elsewhere) {
                out.add("file " + input.path() + " is not read any more");
            } else if (hash != null && !hash.equals(input.sha256())) {
                out.add("file changed: " + input.path());
            }
        }
        now.forEach((path, hash) -> {
            if (was.stream().noneMatch(i -> i.sha256().equals(hash))) {
                out.add("file " + path + " was not read before");
            }
        });
        return out;
    }

    private static void steps(Step was, Step is, String of, Set<String> out) {
        if (was.method().name().equals(is.method().name())
                && was.method().version() != is.method().version()) {
            out.add("method changed: \"" + is.method().name() + "\" from version "
                    + was.method().version() + " to " + is.method().version());
        } else if (!was.method().equals(is.method())) {
            out.add("method changed: \"" + was.method().name() + "\" to \""
                    + is.method().name() + "\"");
        }
        List<String> changed = DataDiff.of(defined(was), defined(is));
        if (!changed.isEmpty()) {
            int more = changed.size() - MOST;
            out.add("definition changed: " + of + is.stop() + ", "
                    + String.join(", ", changed.subList(0, Math.min(MOST, changed.size())))
                    + (more > 0 ? " and " + more + " more" : ""));
        }
    }

    /** What is defined in a step: the name of the file that a run was read from stands among the inputs. */
    private static Map<String, Object> defined(Step step) {
        var out = new LinkedHashMap<>(step.settings());
        if (step.stop().equals("source")) {
            out.remove("read");
        }
        return out;
    }
}
