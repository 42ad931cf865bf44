package lane.desk.quantities;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import lane.base.Fault;
import lane.base.LaneException;
import lane.desk.Session;
import lane.evaluation.EvaluationContext;
import lane.field.Run;
import lane.formula.Compiler;
import lane.formula.FormulaException;
import lane.formula.Parser;
import lane.formula.Type;
import lane.unit.Unit;
import org.jspecify.annotations.Nullable;

/**
 * A formula as all lanes see it, without computing anything.
 *
 * @param types by lane; lanes that cannot answer are left out
 * @param lacks by lane, why it cannot answer
 * @param wrong what is wrong for every lane; null where some lane can answer or nothing is known
 * @param notes about units
 */
record Checked(
        Map<String, Type> types,
        Map<String, String> lacks,
        @Nullable FormulaException wrong,
        String unitTrouble,
        List<String> notes) {
    static Checked of(Session session, String formula, String self, String unit) {
        Map<String, Type> types = new LinkedHashMap<>();
        Map<String, String> lacks = new LinkedHashMap<>();
        List<String> notes = new ArrayList<>();
        FormulaException wrong = null;
        String trouble = "";
        try {
            Parser.parse(formula);
        } catch (FormulaException e) {
            return new Checked(types, lacks, e, "", notes);
        }
        EvaluationContext lens = session.lens();
        for (Map.Entry<String, Run> run : session.results().runs().entrySet()) {
            try {
                Compiler.Compiled made = lane.evaluation.BoundQuantity.check(run.getValue(), formula, self, lens);
                types.put(run.getKey(), made.type());
                made.notes().stream().filter(n -> !notes.contains(n)).forEach(notes::add);
                trouble = trouble.isEmpty() ? unitTrouble(made.type(), unit) : trouble;
            } catch (FormulaException e) {
                lacks.put(run.getKey(), e.getMessage());
                // A wrong unit says more than a field that some lane lacks.
                wrong = wrong == null || wrong.fault() == Fault.MISSING_FIELD ? e : wrong;
            } catch (LaneException e) {
                lacks.put(run.getKey(), e.getMessage());
            }
        }
        return new Checked(types, lacks, types.isEmpty() ? wrong : null, trouble, notes);
    }

    private static String unitTrouble(Type type, String unit) {
        try {
            Unit stated = Unit.of(unit);
            if (stated.known() && type.unit().known()) {
                type.unit().requireComparable(stated, "The unit");
            }
            return "";
        } catch (LaneException e) {
            return e.getMessage();
        }
    }

    /** The type in the first lane that can answer; null for none. */
    @Nullable
    Type type() {
        return types.values().stream().findFirst().orElse(null);
    }
}
