package lane.desk.intake;

import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashSet;
import java.util.List;
import lane.formats.io.FileNames;

/** Short names for files that come together: what differs between them. */
final class Names {
    private Names() {}

    /**
     * One name a file, all different and none of those taken. Words that all have in common at the beginning and end of
     * their names are left out; where the file names are the same, their folders tell them apart.
     *
     * @param paths with forward slashes
     */
    static List<String> of(List<String> paths, Collection<String> taken) {
        List<List<String>> words = paths.stream()
                .map(p -> List.of(stem(p).split("(?<=[^\\p{L}\\p{N}.])|(?=[^\\p{L}\\p{N}.])")))
                .toList();
        List<String> names = paths.stream().map(Names::stem).toList();
        if (paths.size() > 1) {
            if (new LinkedHashSet<>(names).size() == 1) {
                words = paths.stream()
                        .map(p -> List.of(p.split("(?<=/)|(?=/)")))
                        .toList();
            }
            int front = common(words, false);
            int back = common(words, true);
            List<String> shorter = new ArrayList<>();
            for (List<String> w : words) {
                int end = Math.max(front, w.size() - back);
                shorter.add(String.join("", w.subList(Math.min(front, w.size()), end))
                        .replaceAll("^[^\\p{L}\\p{N}]+|[^\\p{L}\\p{N}]+$", ""));
            }
            // A name that only one of them lacks would be empty.
            names = shorter.stream().anyMatch(String::isBlank) ? names : shorter;
        }
        List<String> out = new ArrayList<>();
        for (String raw : names) {
            String name = raw.replaceAll("[^\\p{L}\\p{N})]+$", "");
            name = name.isEmpty() ? raw : name;
            String unique = name;
            for (int n = 2; taken.contains(unique) || out.contains(unique); n++) {
                unique = name + " " + n;
            }
            out.add(unique);
        }
        return out;
    }

    private static String stem(String path) {
        return FileNames.stem(path);
    }

    private static int common(List<List<String>> all, boolean back) {
        int n = 0;
        while (true) {
            String word = null;
            for (List<String> w : all) {
                if (n >= w.size()) {
                    return n;
                }
                String here = w.get(back ? w.size() - 1 - n : n);
                if (word != null && !word.equals(here)) {
                    return n;
                }
                word = here;
            }
            n++;
        }
    }
}
