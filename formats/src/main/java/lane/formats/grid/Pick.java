package lane.formats.grid;

import lane.field.Field;
import lane.field.Values;

/** Entries of fields in another order, or some of them, in the number type they are stored in. */
public final class Pick {
    private Pick() {}

    /** @param from for each new entry the old one */
    public static Field field(Field field, int[] from) {
        return new Field(
                field.name(),
                field.at(),
                field.components(),
                field.unit(),
                values(field.values(), field.components(), from));
    }

    public static Values values(Values values, int components, int[] from) {
        int n = Math.multiplyExact(components, from.length);
        switch (values) {
            case Values.Doubles v -> {
                double[] out = new double[n];
                for (int i = 0; i < from.length; i++) {
                    System.arraycopy(v.array(), from[i] * components, out, i * components, components);
                }
                return new Values.Doubles(out);
            }
            case Values.Floats v -> {
                float[] out = new float[n];
                for (int i = 0; i < from.length; i++) {
                    System.arraycopy(v.array(), from[i] * components, out, i * components, components);
                }
                return new Values.Floats(out);
            }
            case Values.Ints v -> {
                int[] out = new int[n];
                for (int i = 0; i < from.length; i++) {
                    System.arraycopy(v.array(), from[i] * components, out, i * components, components);
                }
                return new Values.Ints(out);
            }
        }
    }

    /** One after the other, in the widest type needed. */
    public static Values join(java.util.List<Values> all) {
        if (all.size() == 1) {
            return all.getFirst();
        }
        int n = 0;
        for (Values v : all) {
            n = Math.addExact(n, v.length());
        }
        if (all.stream().allMatch(Values.Ints.class::isInstance)) {
            int[] out = new int[n];
            int at = 0;
            for (Values v : all) {
                System.arraycopy(((Values.Ints) v).array(), 0, out, at, v.length());
                at += v.length();
            }
            return new Values.Ints(out);
        }
        if (all.stream().allMatch(Values.Floats.class::isInstance)) {
            float[] out = new float[n];
            int at = 0;
            for (Values v : all) {
                System.arraycopy(((Values.Floats) v).array(), 0, out, at, v.length());
                at += v.length();
            }
            return new Values.Floats(out);
        }
        double[] out = new double[n];
        int at = 0;
        for (Values v : all) {
            for (int i = 0; i < v.length(); i++) {
                out[at++] = v.get(i);
            }
        }
        return new Values.Doubles(out);
    }
}
