package lane.formats.grid;

import java.nio.file.Path;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.function.UnaryOperator;
import lane.field.Field;
import lane.field.Treatment;
import lane.mesh.Mesh;

/**
 * What was read from a file or a set of files that belong together, at one time.
 *
 * @param groups named surfaces that the file tells apart, candidates for boundary parts
 * @param times all times that are stored, ascending; empty when the file knows none
 * @param time the one that was read; NaN when the file knows none
 * @param remarks what the reader wants known: what it left out, joined or made simpler
 * @param files that the first one referred to and that were read too
 * @param labels lists of names that the file carries, for regions that have numbers only
 * @param metres whether the file says in which unit its coordinates are, so that they are metres here
 * @param pieces in how many pieces it is stored, of which one alone may have been read
 */
public record Dataset(
        Mesh mesh,
        List<Field> fields,
        List<Group> groups,
        List<Double> times,
        double time,
        List<String> remarks,
        List<Path> files,
        Map<String, List<String>> labels,
        boolean metres,
        int pieces) {
    /** A named surface with fields of its own. */
    public record Group(String name, Mesh surface, List<Field> fields) {
        public Group {
            fields = List.copyOf(fields);
        }
    }

    public Dataset {
        fields = List.copyOf(fields);
        groups = List.copyOf(groups);
        times = List.copyOf(times);
        remarks = List.copyOf(remarks);
        files = List.copyOf(files);
        labels = Map.copyOf(labels);
    }

    public Dataset(
            Mesh mesh, List<Field> fields, List<Group> groups, List<Double> times, double time, List<String> remarks) {
        this(mesh, fields, groups, times, time, remarks, List.of(), Map.of(), false, 1);
    }

    public Dataset(Mesh mesh, List<Field> fields, List<String> remarks) {
        this(mesh, fields, List.of(), List.of(), Double.NaN, remarks);
    }

    public Dataset at(List<Double> allTimes, double now) {
        return new Dataset(mesh, fields, groups, allTimes, now, remarks, files, labels, metres, pieces);
    }

    /** @param said whether the file says in which unit its coordinates are */
    public Dataset inMetres(boolean said) {
        return new Dataset(mesh, fields, groups, times, time, remarks, files, labels, said, pieces);
    }

    /** Stored in so many pieces. */
    public Dataset in(int stored) {
        return new Dataset(mesh, fields, groups, times, time, remarks, files, labels, metres, stored);
    }

    /** With the other files that it was read from. */
    public Dataset from(Collection<Path> others) {
        return new Dataset(mesh, fields, groups, times, time, remarks, List.copyOf(others), labels, metres, pieces);
    }

    /** With remarks after its own. */
    public Dataset saying(Collection<String> more) {
        List<String> all = new java.util.ArrayList<>(remarks);
        more.stream().filter(r -> !all.contains(r)).forEach(all::add);
        return new Dataset(mesh, fields, groups, times, time, all, files, labels, metres, pieces);
    }

    /** Saying of tensors of six numbers in which order they are taken: a format that does not say leaves it open. */
    public Dataset assuming() {
        return saying(fields.stream()
                .filter(f -> f.components() == 6)
                .map(f -> Treatment.assumed(f.name()))
                .toList());
    }

    public Dataset labelled(Map<String, List<String>> names) {
        return new Dataset(mesh, fields, groups, times, time, remarks, files, names, metres, pieces);
    }

    /**
     * The same on other meshes.
     *
     * @param move gives for a mesh the one to stand for it
     */
    public Dataset on(UnaryOperator<Mesh> move) {
        return new Dataset(
                move.apply(mesh),
                fields,
                groups.stream()
                        .map(g -> new Group(g.name(), move.apply(g.surface()), g.fields()))
                        .toList(),
                times,
                time,
                remarks,
                files,
                labels,
                metres,
                pieces);
    }
}
