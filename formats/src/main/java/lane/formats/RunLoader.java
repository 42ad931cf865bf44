package lane.formats;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;
import lane.base.BoundedMemo;
import lane.base.Content;
import lane.base.Fault;
import lane.base.LaneException;
import lane.base.Memo;
import lane.base.Work;
import lane.field.Deferred;
import lane.field.Field;
import lane.field.Part;
import lane.field.PartBuilder;
import lane.field.Run;
import lane.field.Stated;
import lane.field.TimeSelector;
import lane.field.Values;
import lane.formats.grid.Dataset;
import lane.formats.io.FileErrors;
import lane.formats.io.FileNames;
import lane.mesh.Joints;
import lane.mesh.Mesh;
import lane.provenance.Provenance;
import lane.study.Source;
import org.jspecify.annotations.Nullable;

/** Makes one run of the files that belong to it: the mesh with its fields, and the boundary parts. */
final class RunLoader {
    private final FileLibrary library;
    private final Recording recording;
    private final Source.Simulation source;
    private final Work work;
    /** The work after the files were read. */
    private Work later = Work.QUIET;

    private final List<Provenance.Input> inputs = new ArrayList<>();
    private final List<String> remarks = new ArrayList<>();

    RunLoader(FileLibrary library, Recording recording, Source.Simulation source, Work work) {
        this.library = library;
        this.recording = recording;
        this.source = source;
        this.work = work;
    }

    Run load(TimeSelector moment) {
        String what = "Loading " + source.name();
        work.progress(what, 0);
        Path file = library.resolve(source.file());
        double[] share = shares(file);
        Work named = new Work() {
            @Override
            public boolean cancelled() {
                return work.cancelled();
            }

            @Override
            public void progress(String detail, double fraction) {
                work.progress(what, fraction);
            }
        };
        Dataset grid = recording.open(file, moment, named.stretch(0, share[0]));
        if (!Series.is(file)) {
            inputs.add(library.input(file, source.file(), work));
        }
        for (Path other : grid.files()) {
            inputs.add(library.input(other, library.relative(other), work));
        }
        library.began(recording, grid.times());
        work.poll();
        later = named.stretch(share[0] + share[1], 1);
        later.progress(what, 0);
        remarks.addAll(grid.remarks());
        double metres = source.treatment().metres();
        Stated stated = Stated.NOTHING.said(metres != 0 || grid.metres());
        grid = scaled(grid, metres == 0 ? 1 : metres);
        Mesh mesh = recording.shared(grid.mesh());
        var again = again(file, grid);
        List<Part> parts = new ArrayList<>();
        if (mesh.dimension() >= 2) {
            parts(mesh, grid, again, metres == 0 ? 1 : metres, parts, moment);
        }
        whole(mesh, parts);
        // What is read is known by its files, its time, and what decides how they become a mesh.
        Object key = List.of(inputs, source.regions(), metres, grid.time());
        List<Field> fields = grid.fields().stream()
                .map(f -> again.field(List.of(key, f.at(), f.name(), f.components()), "", f))
                .toList();
        var run = new Run(mesh, fields, parts, inputs, remarks, grid.times(), grid.time(), stated, key);
        // The first line or point asks for it anyway, and here it can be seen and cancelled.
        run.locator(later.stretch(BOUNDARY, 1));
        return run;
    }

    /**
     * One of the pieces that a run is stored in.
     *
     * @param all what was found out about all of them
     * @param known what the piece is known by
     */
    Run piece(TimeSelector moment, int k, PieceParts all, Joints joints, List<Provenance.Input> files, Object known) {
        pieces = all;
        Path file = library.resolve(source.file());
        Dataset grid = recording.open(file, moment, k, work);
        double metres = source.treatment().metres();
        grid = scaled(grid, metres == 0 ? 1 : metres);
        var key = new Mesh.Key(List.of(Content.of(known.toString().getBytes(java.nio.charset.StandardCharsets.UTF_8))));
        Mesh mesh = grid.mesh().joined(joints, key);
        inputs.addAll(files);
        List<Part> own = new ArrayList<>();
        parts(mesh, grid, again(file, grid), metres == 0 ? 1 : metres, own, moment);
        if (all.boundaryOnly()) {
            own.add(boundary(mesh));
        }
        List<Field> fields = grid.fields().stream()
                .map(f ->
                        f.stored() instanceof Deferred ? f.named(List.of(known, f.at(), f.name(), f.components())) : f)
                .toList();
        return new Run(
                mesh,
                fields,
                all.of(own),
                files,
                all.remarks(),
                grid.times(),
                grid.time(),
                Stated.NOTHING.said(metres != 0 || grid.metres()),
                known);
    }

    /** What all pieces have together; null for a run that is held whole. */
    private @Nullable PieceParts pieces;

    /** Of a series, the file of the time comes last. */
    private static FieldsAgain again(Path file, Dataset read) {
        return new FieldsAgain(Series.is(file) ? read.files().getLast() : file, read);
    }

    /** Coordinates in metres; of a mesh that stays the same, the same mesh. */
    private Dataset scaled(Dataset read, double metres) {
        if (metres == 1) {
            return read;
        }
        return read.on(m -> grids().of(List.of("metres", m.key(), metres), () -> m.scaled(metres)));
    }

    /** Of the time after reading, the share until the parts are made; the locator takes the rest. */
    private static final double BOUNDARY = 0.5;

    /**
     * Shares of the time that reading and hashing take, estimated from the file's size: nanoseconds a byte to read (packed
     * files must be unpacked), to hash, and to find the boundary and order the cells that so many bytes hold.
     */
    private static double[] shares(Path file) {
        boolean packed = true;
        try (var in = java.nio.file.Files.newInputStream(file)) {
            String head = new String(in.readNBytes(2000), java.nio.charset.StandardCharsets.ISO_8859_1);
            packed = head.contains("compressor=") || head.contains("ascii") || head.startsWith("\u0089HDF");
        } catch (java.io.IOException e) {
            // A pattern, or a file that cannot be read, which the reader tells.
            packed = true;
        }
        double read = packed ? 6 : 0.5;
        double hash = 0.8;
        double cells = packed ? 15 : 5;
        double sum = read + hash + cells;
        return new double[] {read / sum, hash / sum};
    }

    /** A surface with values goes with the volume only at the volume's time; without values its time does not matter. */
    private Dataset surface(Path file, Dataset grid, TimeSelector moment) {
        double tolerance = moment instanceof TimeSelector.At at ? at.tolerance() : 0;
        TimeSelector same = Double.isNaN(grid.time()) ? moment : new TimeSelector.At(grid.time(), tolerance);
        Dataset surface = recording.open(file, moment, work);
        if (Double.isNaN(surface.time()) || Double.isNaN(grid.time()) || surface.time() == grid.time()) {
            return surface;
        }
        boolean values = !surface.fields().isEmpty()
                || surface.groups().stream().anyMatch(g -> !g.fields().isEmpty());
        if (surface.times().size() > 1) {
            return recording.open(file, same, work);
        }
        if (values) {
            FileErrors.of(file, () -> same.in(surface.times()));
        }
        return surface;
    }

    private void parts(Mesh mesh, Dataset grid, FieldsAgain own, double metres, List<Part> parts, TimeSelector moment) {
        PartBuilder builder = builder(mesh);
        for (String path : source.partFiles()) {
            work.poll();
            Path file = library.resolve(path);
            Dataset surface = scaled(surface(file, grid, moment), metres);
            if (Series.is(file)) {
                surface.files().forEach(f -> inputs.add(library.input(f, library.relative(f), work)));
            } else {
                inputs.add(library.input(file, path, work));
            }
            var again = again(file, surface);
            List<Part> apart = apart(builder, mesh, surface);
            List<Part> made = !apart.isEmpty()
                    ? apart
                    : surface.groups().isEmpty()
                            ? List.of(place(
                                    builder,
                                    mesh,
                                    FileNames.stem(path).replace("*", "").strip(),
                                    surface.mesh(),
                                    named(again, "", surface.time(), surface.fields())))
                            : surface.groups().stream()
                                    .map(g -> place(
                                            builder,
                                            mesh,
                                            g.name(),
                                            g.surface(),
                                            named(again, g.name(), surface.time(), g.fields())))
                                    .toList();
            made.forEach(this::tell);
            parts.addAll(made);
        }
        for (Dataset.Group group : grid.groups()) {
            parts.add(place(
                    builder,
                    mesh,
                    group.name(),
                    group.surface(),
                    named(own, group.name(), grid.time(), group.fields())));
        }
        boolean known = grid.fields().stream().anyMatch(f -> f.name().equals(source.regions()));
        if (!source.regions().isBlank() && (known || !split)) {
            regions(builder, mesh, grid, parts);
        }
        if (builder.boundary().shared() > 0) {
            remarks.add(builder.boundary().shared() + " faces belong to more than two cells.");
        }
    }

    /** Where what times share is kept: of a piece nothing, which is read to be let go of. */
    private Memo grids() {
        return pieces == null ? recording.grids() : passing;
    }

    /** What one piece shares while its parts are made. */
    private final Memo passing = new BoundedMemo(Long.MAX_VALUE);

    private PartBuilder builder(Mesh mesh) {
        return grids().of(List.of("boundary", mesh.key()), () -> new PartBuilder(mesh, later.stretch(0, BOUNDARY)));
    }

    /** Where no part is told, the boundary is one. */
    private void whole(Mesh mesh, List<Part> parts) {
        if (parts.isEmpty() && mesh.dimension() >= 2 && builder(mesh).boundary().size() > 0) {
            parts.add(boundary(mesh));
        }
    }

    private Part boundary(Mesh mesh) {
        return grids().of(List.of("whole", mesh.key()), () -> builder(mesh).whole("boundary"));
    }

    /** Whether a surface file had the array that names parts. */
    private boolean split;

    /** The parts of a surface whose faces a whole number tells apart; none where it has no such array. */
    private List<Part> apart(PartBuilder builder, Mesh mesh, Dataset surface) {
        Field region = surface.fields().stream()
                .filter(f -> f.name().equals(source.regions())
                        && f.at() == Field.At.CELL
                        && f.components() == 1
                        && f.values() instanceof Values.Ints)
                .findFirst()
                .orElse(null);
        if (region == null) {
            return List.of();
        }
        split = true;
        Values.Ints numbers = (Values.Ints) region.values();
        List<String> names = names(surface.labels(), source.regions(), numbers);
        List<Part> out = new ArrayList<>();
        for (int number : new TreeSet<>(Arrays.stream(numbers.array()).boxed().toList())) {
            int[] faces = java.util.stream.IntStream.range(0, numbers.length())
                    .filter(i -> numbers.array()[i] == number)
                    .toArray();
            List<Field> fields = surface.fields().stream()
                    .map(f -> f.at() == Field.At.CELL
                            ? new Field(
                                    f.name(),
                                    f.at(),
                                    f.components(),
                                    f.unit(),
                                    f.values().pick(f.components(), faces))
                            : f)
                    .toList();
            String name = names == null || number >= names.size() || number < 0 ? "" : names.get(number);
            out.add(place(
                    builder,
                    mesh,
                    name.isBlank() ? source.regions() + " " + number : name,
                    surface.mesh().only(faces),
                    fields));
        }
        return out;
    }

    /** Fields of a surface, known by the files that were read last, and the time in them. */
    private List<Field> named(FieldsAgain again, String group, double time, List<Field> fields) {
        if (pieces != null) {
            // A piece is let go of before its numbers are: to read the file again would give those of all pieces.
            return fields;
        }
        Object files = List.of(List.copyOf(inputs), time);
        return fields.stream()
                .map(f -> again.field(List.of(files, "of a part", group, f.at(), f.name(), f.components()), group, f))
                .toList();
    }

    /** A surface on the run's mesh: found once, also where its fields change over time. */
    private Part place(PartBuilder builder, Mesh mesh, String name, Mesh surface, List<Field> fields) {
        Part placed = grids().of(
                        List.of("part", mesh.key(), surface.key(), name), () -> builder.place(name, surface, List.of()))
                .with(fields);
        return pieces == null ? placed : PieceParts.matched(placed);
    }

    private void tell(Part part) {
        if (part.unmatched() > 0) {
            remarks.add("Part " + part.name() + ": " + part.unmatched() + " of "
                    + part.surface().cellCount() + " faces are no boundary faces of the run.");
        }
        if (part.turned() > 0) {
            remarks.add("Part " + part.name() + ": " + part.turned()
                    + " faces were wound inwards and are read turned outwards.");
        }
    }

    private void regions(PartBuilder builder, Mesh mesh, Dataset grid, List<Part> parts) {
        Field region = grid.fields().stream()
                .filter(f -> f.name().equals(source.regions()))
                .findFirst()
                .orElseThrow(() -> new LaneException(
                        Fault.MISSING_FIELD,
                        "The file " + source.file() + " has no array \"" + source.regions()
                                + "\" to name its parts by; choose another."));
        if (region.at() != Field.At.CELL || region.components() != 1 || !(region.values() instanceof Values.Ints)) {
            throw new LaneException("The array \"" + source.regions() + "\" of " + source.file()
                    + " cannot name parts: it must hold one whole number a cell.");
        }
        Values numbers = region.values();
        Object key = List.of("regions", mesh.key(), source.regions(), Content.of(((Values.Ints) numbers).array()));
        List<Part> made = grids().of(key, () -> {
            List<Part> faces = builder.byFaceCells(source.regions(), numbers);
            boolean told = !faces.isEmpty() || pieces != null && pieces.faceCells();
            return told ? faces : builder.byOwner(source.regions(), numbers);
        });
        List<String> names = pieces != null
                ? names(grid.labels(), source.regions(), pieces.numbers())
                : names(grid.labels(), source.regions(), (Values.Ints) numbers);
        for (Part p : made) {
            int number = Integer.parseInt(p.name().substring(p.name().lastIndexOf(' ') + 1));
            String name = names == null || number >= names.size() || number < 0 ? "" : names.get(number);
            parts.add(name.isBlank() ? p : p.named(name));
        }
    }

    /**
     * Names by region number, from a list of names in the file: one a number from 0 or from 1, or one for each number
     * that occurs, in rising order. A list that is called after the array goes first. Null when none fits.
     */
    private static @Nullable List<String> names(Map<String, List<String>> labels, String array, Values.Ints region) {
        var numbers = new TreeSet<Integer>();
        Arrays.stream(region.array()).forEach(numbers::add);
        return names(labels, array, numbers);
    }

    static @Nullable List<String> names(
            Map<String, List<String>> labels, String array, java.util.SortedSet<Integer> numbers) {
        List<List<String>> lists = labels.entrySet().stream()
                .sorted(java.util.Comparator.comparing(e -> !e.getKey().contains(array)))
                .map(Map.Entry::getValue)
                .toList();
        for (List<String> list : lists) {
            List<String> out = new ArrayList<>();
            if (numbers.first() >= 0 && numbers.last() == list.size()) {
                out.add("");
                out.addAll(list);
            } else if (numbers.first() >= 0 && numbers.last() == list.size() - 1) {
                out.addAll(list);
            } else if (numbers.first() >= 0 && numbers.size() == list.size() && numbers.last() < 1 << 20) {
                for (int i = 0; i <= numbers.last(); i++) {
                    out.add(numbers.contains(i) ? list.get(numbers.headSet(i).size()) : "");
                }
            }
            if (!out.isEmpty()) {
                return out;
            }
        }
        return null;
    }
}
