package lane.formats;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;
import lane.base.LaneException;
import lane.base.Work;
import lane.field.Field;
import lane.field.Part;
import lane.field.PartBuilder;
import lane.field.Run;
import lane.field.Stated;
import lane.field.TimeSelector;
import lane.field.Values;
import lane.formats.grid.Dataset;
import lane.formats.io.FileErrors;
import lane.formats.io.FileHash;
import lane.formats.io.FileNames;
import lane.mesh.Mesh;
import lane.provenance.Provenance;
import lane.study.Source;

/** Makes one run of the files that belong to it: the mesh with its fields, and the boundary parts. */
final class RunLoader {
    private final FileLibrary library;
    private final Source.Simulation source;
    private final Work work;
    /** The work after the files were read. */
    private Work later = Work.QUIET;

    private final List<Provenance.Input> inputs = new ArrayList<>();
    private final List<String> remarks = new ArrayList<>();

    RunLoader(FileLibrary library, Source.Simulation source, Work work) {
        this.library = library;
        this.source = source;
        this.work = work;
    }

    /** @param earlier the same files at another time, whose mesh is shared where it is the same; null for none */
    Run load(TimeSelector moment, Run earlier) {
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
        Dataset grid = DatasetReader.read(file, moment, named.stretch(0, share[0]));
        if (!Series.is(file)) {
            inputs.add(FileHash.of(file, source.file(), work));
        }
        for (Path other : grid.files()) {
            inputs.add(FileHash.of(other, library.relative(other), work));
        }
        work.poll();
        later = named.stretch(share[0] + share[1], 1);
        later.progress(what, 0);
        remarks.addAll(grid.remarks());
        double metres = source.treatment().metres();
        grid = grid.scaled(metres == 0 ? 1 : metres);
        Mesh mesh = earlier != null && grid.mesh().sameAs(earlier.mesh()) ? earlier.mesh() : grid.mesh();
        List<Part> parts = new ArrayList<>();
        if (mesh.dimension() >= 2) {
            parts(mesh, grid, metres == 0 ? 1 : metres, parts, moment);
        }
        var run = new Run(mesh, grid.fields(), parts, inputs, remarks, grid.times(), grid.time(), Stated.NOTHING);
        if (earlier != null && mesh == earlier.mesh()) {
            return run.sharing(earlier);
        }
        // The first line or point asks for it anyway, and here it can be seen and cancelled.
        run.locator(later.stretch(BOUNDARY, 1));
        return run;
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
        Dataset surface = DatasetReader.read(file, moment, work);
        if (Double.isNaN(surface.time()) || Double.isNaN(grid.time()) || surface.time() == grid.time()) {
            return surface;
        }
        boolean values = !surface.fields().isEmpty()
                || surface.groups().stream().anyMatch(g -> !g.fields().isEmpty());
        if (surface.times().size() > 1) {
            return DatasetReader.read(file, same, work);
        }
        if (values) {
            FileErrors.of(file, () -> same.in(surface.times()));
        }
        return surface;
    }

    private void parts(Mesh mesh, Dataset grid, double metres, List<Part> parts, TimeSelector moment) {
        var builder = new PartBuilder(mesh, later.stretch(0, BOUNDARY));
        for (String path : source.partFiles()) {
            work.poll();
            Path file = library.resolve(path);
            Dataset surface = surface(file, grid, moment).scaled(metres);
            if (Series.is(file)) {
                surface.files().forEach(f -> inputs.add(FileHash.of(f, library.relative(f))));
            } else {
                inputs.add(FileHash.of(file, path));
            }
            List<Part> made = surface.groups().isEmpty()
                    ? List.of(builder.place(
                            FileNames.stem(path).replace("*", "").strip(), surface.mesh(), surface.fields()))
                    : surface.groups().stream()
                            .map(g -> builder.place(g.name(), g.surface(), g.fields()))
                            .toList();
            made.forEach(this::tell);
            parts.addAll(made);
        }
        for (Dataset.Group group : grid.groups()) {
            parts.add(builder.place(group.name(), group.surface(), group.fields()));
        }
        if (!source.regions().isBlank()) {
            regions(builder, grid, parts);
        }
        if (parts.isEmpty() && builder.boundary().size() > 0) {
            parts.add(builder.whole("boundary"));
        }
        if (builder.boundary().shared() > 0) {
            remarks.add(builder.boundary().shared() + " faces belong to more than two cells.");
        }
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

    private void regions(PartBuilder builder, Dataset grid, List<Part> parts) {
        Field region = grid.fields().stream()
                .filter(f -> f.name().equals(source.regions()))
                .findFirst()
                .orElseThrow(() -> new LaneException("The file " + source.file() + " has no array \"" + source.regions()
                        + "\" to name its parts by; choose another."));
        if (region.at() != Field.At.CELL || region.components() != 1 || !(region.values() instanceof Values.Ints)) {
            throw new LaneException("The array \"" + source.regions() + "\" of " + source.file()
                    + " cannot name parts: it must hold one whole number a cell.");
        }
        List<Part> faces = builder.byFaceCells(source.regions(), region.values());
        List<Part> made = faces.isEmpty() ? builder.byOwner(source.regions(), region.values()) : faces;
        List<String> names = names(grid.labels(), source.regions(), (Values.Ints) region.values());
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
    private static List<String> names(Map<String, List<String>> labels, String array, Values.Ints region) {
        var numbers = new TreeSet<Integer>();
        Arrays.stream(region.array()).forEach(numbers::add);
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
