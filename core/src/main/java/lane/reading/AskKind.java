package lane.reading;

import lane.base.Kinds;

/**
 * A kind of reading as studies name it; found as a service.
 *
 * @see Kinds
 */
public interface AskKind extends Kinds.Kind<Ask> {
    Kinds<Ask, AskKind> ALL = Kinds.of(AskKind.class);
}
