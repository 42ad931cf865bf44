package lane.formats.ledger;

import java.io.IOException;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import lane.base.LaneException;
import lane.base.Work;
import lane.formats.hash.HashesAhead;
import lane.formats.io.FileHash;
import lane.formats.io.FileStamp;
import lane.ledger.Ledger;
import lane.provenance.Provenance.Input;

/**
 * The files that the numbers of a ledger rest on, as they stand now.
 *
 * @param same paths whose content is what it was
 * @param changed paths with another content
 * @param moved files that were found elsewhere by their content, by the path that the study gives
 * @param missing paths that were found nowhere
 */
public record Inputs(List<String> same, List<String> changed, Map<String, Path> moved, List<String> missing) {
    /** No more files than these are looked at for one that is missing. */
    private static final int MOST = 200_000;

    private static final int DEEP = 12;

    /**
     * @param place where a path of the study points to
     * @param lookIn folders that are searched, with all in them, for what is missing
     */
    static Inputs of(Ledger ledger, Function<String, Path> place, List<Path> lookIn, Work work) {
        Map<String, Input> all = ledger.inputs();
        List<String> same = new ArrayList<>();
        List<String> changed = new ArrayList<>();
        List<Input> lost = new ArrayList<>();
        List<Path> there = all.values().stream()
                .map(i -> placed(place, i.path()))
                .flatMap(Optional::stream)
                .toList();
        int n = 0;
        for (Input input : all.values()) {
            work.progress("Looking at " + input.path(), (double) n++ / all.size());
            work.poll();
            HashesAhead.SHARED.want(there.subList(Math.min(n, there.size()), there.size()));
            Path file = placed(place, input.path()).orElse(null);
            if (file == null) {
                lost.add(input);
                continue;
            }
            try {
                if (!Files.isRegularFile(file)) {
                    lost.add(input);
                } else if (Files.size(file) == input.bytes()
                        && HashesAhead.SHARED
                                .input(FileStamp.of(file), input.path(), work)
                                .sha256()
                                .equals(input.sha256())) {
                    same.add(input.path());
                } else {
                    changed.add(input.path());
                }
            } catch (IOException | LaneException e) {
                changed.add(input.path());
            }
        }
        var moved = new LinkedHashMap<String, Path>();
        if (!lost.isEmpty()) {
            search(lost, lookIn, moved, work);
        }
        return new Inputs(
                same,
                changed,
                moved,
                lost.stream()
                        .map(Input::path)
                        .filter(p -> !moved.containsKey(p))
                        .toList());
    }

    private static void search(List<Input> lost, List<Path> lookIn, Map<String, Path> moved, Work work) {
        Set<Path> seen = new HashSet<>();
        int[] count = new int[1];
        for (Path root : lookIn) {
            try {
                Files.walkFileTree(root, Set.of(), DEEP, new SimpleFileVisitor<>() {
                    @Override
                    public FileVisitResult preVisitDirectory(Path dir, BasicFileAttributes attrs) {
                        return seen.add(dir.toAbsolutePath().normalize())
                                ? FileVisitResult.CONTINUE
                                : FileVisitResult.SKIP_SUBTREE;
                    }

                    @Override
                    public FileVisitResult visitFile(Path file, BasicFileAttributes attrs) {
                        work.poll();
                        for (Input input : lost) {
                            if (!moved.containsKey(input.path()) && attrs.size() == input.bytes() && is(file, input)) {
                                moved.put(input.path(), file.toAbsolutePath().normalize());
                            }
                        }
                        return ++count[0] < MOST && moved.size() < lost.size()
                                ? FileVisitResult.CONTINUE
                                : FileVisitResult.TERMINATE;
                    }

                    @Override
                    public FileVisitResult visitFileFailed(Path file, IOException e) {
                        return FileVisitResult.CONTINUE;
                    }
                });
            } catch (IOException e) {
                // A folder that cannot be listed holds nothing that can be read.
                count[0]++;
            }
        }
    }

    /** Where a path leads; empty where it is none of this machine. */
    private static Optional<Path> placed(Function<String, Path> place, String path) {
        try {
            return Optional.of(place.apply(path));
        } catch (LaneException e) {
            return Optional.empty();
        }
    }

    private static boolean is(Path file, Input input) {
        try {
            return FileHash.of(file, input.path()).sha256().equals(input.sha256());
        } catch (LaneException e) {
            return false;
        }
    }

    /**
     * Where a study's own paths point to now: files that were moved, and patterns of a series all of whose files were moved into
     * one folder under their names.
     *
     * @param patterns paths of the study with a {@code *}
     */
    Map<String, Path> elsewhere(List<String> patterns) {
        var out = new LinkedHashMap<>(moved);
        for (String pattern : patterns) {
            String head = pattern.substring(0, pattern.indexOf('*'));
            String tail = pattern.substring(pattern.indexOf('*') + 1);
            Set<Path> folders = new HashSet<>();
            moved.forEach((path, to) -> {
                boolean named = path.substring(path.lastIndexOf('/') + 1).equals(String.valueOf(to.getFileName()));
                if (path.startsWith(head) && path.endsWith(tail) && named) {
                    folders.add(to.getParent());
                }
            });
            if (folders.size() == 1) {
                out.put(pattern, folders.iterator().next().resolve(pattern.substring(pattern.lastIndexOf('/') + 1)));
            }
        }
        return out;
    }
}
