package lane.check;

import lane.unit.Unit;

/**
 * What must hold of a reading. Each kind is one class: what it compares, what it allows, its verdict and the sentence under
 * it. Whoever shows a check shows what the rule says and computes nothing. The kinds there are stand in the services file of
 * {@link RuleKind}.
 */
public interface Rule {
    /** Carries the check out. It throws nothing: what cannot be judged is told in the result. */
    CheckResult judge(Crossing on);

    /** In two or three words, such as {@code L2}, for a column of the board. */
    String measure();

    /**
     * What is allowed, for people: {@code 1 %}, {@code 0.2 K}.
     *
     * @param unit of the reading as shown
     */
    String allowance(Unit unit);

    /** Whether lanes are compared with a datum, which is judged by nobody then. */
    default boolean comparesWithDatum() {
        return false;
    }

    /** Whether its verdict rests on how well the reading's number is known, so that a family and inputs add to that. */
    default boolean countsDoubts() {
        return true;
    }

    /** Keys of other readings that it looks at. */
    default java.util.List<String> readings() {
        return java.util.List.of();
    }

    /** Key of the rule's own datum; blank for the study's. */
    default String datum() {
        return "";
    }
}
