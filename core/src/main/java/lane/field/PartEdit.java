package lane.field;

import java.util.ArrayList;
import java.util.List;
import lane.base.LaneException;

/** A change to a run's boundary parts, made anew each time the run is read. */
public sealed interface PartEdit {
    /** Names of the parts it needs. */
    List<String> needs();

    /** @param parts of which those that it needs are there */
    List<Part> apply(List<Part> parts);

    record Rename(String part, String to) implements PartEdit {
        public Rename {
            requireName(to);
        }

        @Override
        public List<String> needs() {
            return List.of(part);
        }

        @Override
        public List<Part> apply(List<Part> parts) {
            if (!part.equals(to)) {
                requireFree(parts, List.of(to));
            }
            return parts.stream()
                    .map(p -> p.name().equals(part) ? p.named(to) : p)
                    .toList();
        }
    }

    /** Several parts become one, at the place of the first. */
    record Merge(List<String> parts, String to) implements PartEdit {
        public Merge {
            parts = List.copyOf(parts);
            requireName(to);
        }

        @Override
        public List<String> needs() {
            return parts;
        }

        @Override
        public List<Part> apply(List<Part> all) {
            List<Part> out = new ArrayList<>();
            boolean put = false;
            for (Part p : all) {
                if (!parts.contains(p.name())) {
                    out.add(p);
                } else if (!put) {
                    put = true;
                    requireFree(
                            all.stream().filter(x -> !parts.contains(x.name())).toList(), List.of(to));
                    out.add(PartPieces.merge(
                            all.stream().filter(x -> parts.contains(x.name())).toList(), to));
                }
            }
            return out;
        }
    }

    /**
     * A part falls into pieces where neighbouring faces bend more than an angle; the pieces are numbered, the largest
     * first.
     *
     * @param angle between the normals of two faces, in degrees
     */
    record Split(String part, double angle) implements PartEdit {
        public Split {
            if (!(angle > 0 && angle <= 180)) {
                throw new LaneException("A feature angle of " + angle + " degrees splits nothing; give 1 to 180.");
            }
        }

        @Override
        public List<String> needs() {
            return List.of(part);
        }

        @Override
        public List<Part> apply(List<Part> all) {
            List<Part> out = new ArrayList<>();
            for (Part p : all) {
                if (p.name().equals(part)) {
                    out.addAll(PartPieces.split(p, angle));
                } else {
                    out.add(p);
                }
            }
            return out;
        }
    }

    record Assign(String part, Role role) implements PartEdit {
        @Override
        public List<String> needs() {
            return List.of(part);
        }

        @Override
        public List<Part> apply(List<Part> all) {
            return all.stream()
                    .map(p -> p.name().equals(part) ? p.with(role) : p)
                    .toList();
        }
    }

    private static void requireName(String name) {
        if (name.isBlank()) {
            throw new LaneException("A boundary part needs a name; write one.");
        }
    }

    private static void requireFree(List<Part> parts, List<String> names) {
        for (Part p : parts) {
            if (names.contains(p.name())) {
                throw new LaneException(
                        "There is a part \"" + p.name() + "\" already; choose another name, or merge the two.");
            }
        }
    }
}
