package lane.check;

import lane.base.Kinds;

/** A kind of check as studies name it; found as a service. */
public interface RuleKind extends Kinds.Kind<Rule> {
    Kinds<Rule, RuleKind> ALL = Kinds.of(RuleKind.class);
}
