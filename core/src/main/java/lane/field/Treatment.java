package lane.field;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import lane.base.LaneException;
import lane.unit.Unit;
import lane.unit.UnitSystem;
import org.jspecify.annotations.Nullable;

/**
 * How a run's files are to be understood where they do not say it themselves.
 *
 * @param time which stored time; null follows the study
 * @param length unit of the coordinates; blank for the system's, the file's own, or else metre
 * @param system units of the fields that nobody stated one for; null for none
 * @param units of fields in this run alone, by name
 * @param order for a field, which stored component is x, y and z, counted from 0; of a symmetric tensor which is xx, yy, zz, xy,
 *     yz, xz, of a tensor which is xx, xy, xz, yx and so on
 * @param onWall for a stored wall stress, whether it acts on the wall (else on the fluid)
 * @param depth of a plane run, in metres, that its integrals are taken for; 1 where nobody says
 * @param turn the full turn that the mesh stands for; null for none
 * @param parts changes to the boundary parts, in order
 * @param inPieces whether a run that is stored in pieces is read one piece after the other, in the memory of the largest; null
 *     where its size decides
 */
public record Treatment(
        @Nullable TimeSelector time,
        String length,
        @Nullable UnitSystem system,
        Map<String, String> units,
        Map<String, List<Integer>> order,
        Map<String, Boolean> onWall,
        Double depth,
        @Nullable Turn turn,
        List<PartEdit> parts,
        @Nullable Boolean inPieces) {
    public static final Treatment NONE =
            new Treatment(null, "", null, Map.of(), Map.of(), Map.of(), 1.0, null, List.of(), null);

    /** One whose size decides how it is read. */
    public Treatment(
            @Nullable TimeSelector time,
            String length,
            @Nullable UnitSystem system,
            Map<String, String> units,
            Map<String, List<Integer>> order,
            Map<String, Boolean> onWall,
            Double depth,
            @Nullable Turn turn,
            List<PartEdit> parts) {
        this(time, length, system, units, order, onWall, depth, turn, parts, null);
    }

    /** @throws LaneException when a unit cannot be read, the length is none, or an order is no order of x, y, z */
    public Treatment {
        length = length == null ? "" : length;
        if (!length.isBlank() && !Unit.of(length).comparable(Unit.of("m"))) {
            throw new LaneException("Coordinates cannot be in \"" + length + "\"; give a unit of length, such as mm.");
        }
        units = units == null ? Map.of() : java.util.Collections.unmodifiableMap(new LinkedHashMap<>(units));
        order = order == null ? Map.of() : java.util.Collections.unmodifiableMap(new LinkedHashMap<>(order));
        onWall = onWall == null ? Map.of() : java.util.Collections.unmodifiableMap(new LinkedHashMap<>(onWall));
        depth = depth == null ? 1.0 : depth;
        if (!(depth > 0) || depth.isInfinite()) {
            throw new LaneException("A depth of " + depth + " m is none; give a positive number.");
        }
        parts = parts == null ? List.of() : List.copyOf(parts);
        units.values().forEach(Unit::of);
        order.forEach((field, list) -> {
            boolean all = new java.util.TreeSet<>(list)
                    .equals(new java.util.TreeSet<>(java.util.stream.IntStream.range(0, list.size())
                            .boxed()
                            .toList()));
            if (components(list.size()).isEmpty() || !all || new LinkedHashSet<>(list).size() != list.size()) {
                throw new LaneException("The order " + list + " of the components of \"" + field
                        + "\" is none; give each of 0, 1 and 2 once, for a symmetric tensor each of 0 to 5, for a tensor each of"
                        + " 0 to 8.");
            }
        });
    }

    /** Names of the components of a vector of 3, a symmetric tensor of 6 and a tensor of 9 in their order; empty for others. */
    public static List<String> components(int n) {
        return switch (n) {
            case 3 -> List.of("x", "y", "z");
            case 6 -> List.of("xx", "yy", "zz", "xy", "yz", "xz");
            case 9 -> List.of("xx", "xy", "xz", "yx", "yy", "yz", "zx", "zy", "zz");
            default -> List.of();
        };
    }

    /** Whether an order is that in which components stand anyway. */
    public static boolean stored(int[] order) {
        for (int i = 0; i < order.length; i++) {
            if (order[i] != i) {
                return false;
            }
        }
        return true;
    }

    /** What is told of a tensor of six numbers whose order nobody says: programs differ in it. */
    public static String assumed(String field) {
        return "The six numbers of \"" + field
                + "\" are taken as xx, yy, zz, xy, yz, xz: the file does not name them. State their order"
                + " where it is another one.";
    }

    /** What one unit of the coordinates is, in metres; 0 where the file decides. */
    public double metres() {
        return !length.isBlank()
                ? Unit.of(length).factor()
                : system != null ? Unit.of(system.length()).factor() : 0;
    }

    /** The run as it is understood so; mesh and values are shared with the run as read. */
    public Run apply(Run run) {
        if (units.isEmpty()
                && system == null
                && order.isEmpty()
                && onWall.isEmpty()
                && depth == 1
                && turn == null
                && parts.isEmpty()) {
            return run;
        }
        List<String> remarks = new ArrayList<>(run.remarks());
        // What is stated is no longer assumed.
        remarks.removeIf(r -> order.keySet().stream().anyMatch(f -> r.equals(assumed(f))));
        List<Field> fields = run.fields().stream().map(this::ordered).toList();
        List<Part> changed = run.parts().stream()
                .map(p -> p.with(p.fields().stream().map(this::ordered).toList()))
                .toList();
        for (PartEdit edit : parts) {
            List<Part> now = changed;
            List<String> lacking = edit.needs().stream()
                    .filter(name -> now.stream().noneMatch(p -> p.name().equals(name)))
                    .toList();
            try {
                if (lacking.isEmpty()) {
                    changed = edit.apply(now);
                } else {
                    remarks.add("A change to the parts was left out: there is no part \""
                            + String.join("\", \"", lacking) + "\" here.");
                }
            } catch (LaneException e) {
                remarks.add("A change to the parts was left out: " + e.getMessage());
            }
        }
        var own = new LinkedHashMap<String, Unit>();
        units.forEach((field, unit) -> own.put(field, Unit.of(unit)));
        return run.with(
                fields,
                changed,
                remarks,
                new Stated(system, own, onWall, depth, turn, run.stated().length()),
                at(null));
    }

    private Field ordered(Field field) {
        List<Integer> from = order.get(field.name());
        return from == null || field.components() != from.size()
                ? field
                : new Field(
                        field.name(),
                        field.at(),
                        from.size(),
                        field.unit(),
                        field.stored().permuted(from.stream().mapToInt(i -> i).toArray()));
    }

    public Treatment at(@Nullable TimeSelector other) {
        return new Treatment(other, length, system, units, order, onWall, depth, turn, parts, inPieces);
    }

    public Treatment inLength(String other) {
        return new Treatment(time, other, system, units, order, onWall, depth, turn, parts, inPieces);
    }

    public Treatment in(UnitSystem other) {
        return new Treatment(time, length, other, units, order, onWall, depth, turn, parts, inPieces);
    }

    /** @param unit blank leaves the field to the study */
    public Treatment withUnit(String field, String unit) {
        return new Treatment(
                time,
                length,
                system,
                put(units, field, unit.isBlank() ? null : unit),
                order,
                onWall,
                depth,
                turn,
                parts,
                inPieces);
    }

    /** @param list null for the order of the file */
    public Treatment withOrder(String field, @Nullable List<Integer> list) {
        return new Treatment(
                time, length, system, units, put(order, field, list), onWall, depth, turn, parts, inPieces);
    }

    /** @param wall null for not stated */
    public Treatment withOnWall(String field, @Nullable Boolean wall) {
        return new Treatment(
                time, length, system, units, order, put(onWall, field, wall), depth, turn, parts, inPieces);
    }

    public Treatment withDepth(double metres) {
        return new Treatment(time, length, system, units, order, onWall, metres, turn, parts, inPieces);
    }

    /** @param other null for none */
    public Treatment withTurn(@Nullable Turn other) {
        return new Treatment(time, length, system, units, order, onWall, depth, other, parts, inPieces);
    }

    public Treatment with(PartEdit edit) {
        List<PartEdit> all = new ArrayList<>(parts);
        if (edit instanceof PartEdit.Assign a) {
            all.removeIf(e -> e instanceof PartEdit.Assign b && b.part().equals(a.part()));
        }
        all.add(edit);
        return new Treatment(time, length, system, units, order, onWall, depth, turn, all, inPieces);
    }

    /** @param other null where its size decides */
    public Treatment inPieces(@Nullable Boolean other) {
        return new Treatment(time, length, system, units, order, onWall, depth, turn, parts, other);
    }

    public Treatment withParts(List<PartEdit> all) {
        return new Treatment(time, length, system, units, order, onWall, depth, turn, all, inPieces);
    }

    private static <T> Map<String, T> put(Map<String, T> map, String key, @Nullable T value) {
        var out = new LinkedHashMap<>(map);
        if (value == null) {
            out.remove(key);
        } else {
            out.put(key, value);
        }
        return out;
    }
}
