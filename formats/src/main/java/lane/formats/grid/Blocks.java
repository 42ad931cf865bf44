package lane.formats.grid;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** Named blocks of one run: the largest in dimension are joined to the mesh, those of one less become named surfaces. */
public final class Blocks {
    private Blocks() {}

    /** @param names one a block; blocks of one name are joined */
    public static Dataset join(List<String> names, List<Dataset> blocks) {
        int dimension = 0;
        for (Dataset one : blocks) {
            dimension = Math.max(dimension, one.mesh().dimension());
        }
        List<String> remarks = new ArrayList<>();
        var pieces = new Pieces(remarks);
        Map<String, Pieces> surfaces = new LinkedHashMap<>();
        List<Dataset.Group> groups = new ArrayList<>();
        for (int i = 0; i < blocks.size(); i++) {
            Dataset one = blocks.get(i);
            one.remarks().stream().filter(r -> !remarks.contains(r)).forEach(remarks::add);
            groups.addAll(one.groups());
            if (one.mesh().dimension() == dimension) {
                pieces.add(one.mesh(), one.fields());
            } else if (one.mesh().dimension() == dimension - 1 && dimension > 1) {
                surfaces.computeIfAbsent(names.get(i), k -> new Pieces(remarks)).add(one.mesh(), one.fields());
            } else if (one.mesh().cellCount() > 0) {
                remarks.add(
                        "Block \"" + names.get(i) + "\" is neither of the mesh nor of its boundary and was left out.");
            }
        }
        Dataset whole = pieces.join();
        surfaces.forEach((name, s) -> {
            Dataset joined = s.join();
            groups.add(new Dataset.Group(name, joined.mesh(), joined.fields()));
        });
        return new Dataset(whole.mesh(), whole.fields(), named(groups), List.of(), Double.NaN, remarks);
    }

    /** Surfaces of one name in several blocks are one. */
    private static List<Dataset.Group> named(List<Dataset.Group> groups) {
        Map<String, List<Dataset.Group>> byName = new LinkedHashMap<>();
        groups.forEach(
                g -> byName.computeIfAbsent(g.name(), k -> new ArrayList<>()).add(g));
        List<Dataset.Group> out = new ArrayList<>();
        byName.forEach((name, all) -> {
            var pieces = new Pieces(new ArrayList<>());
            all.forEach(g -> pieces.add(g.surface(), g.fields()));
            Dataset joined = pieces.join();
            out.add(all.size() == 1 ? all.getFirst() : new Dataset.Group(name, joined.mesh(), joined.fields()));
        });
        return out;
    }
}
