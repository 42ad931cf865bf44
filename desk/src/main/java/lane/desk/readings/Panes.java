package lane.desk.readings;

import java.util.HashMap;
import java.util.Map;
import java.util.function.Function;
import lane.desk.Session;

/** The panes that readings are shown in, each made when it is first asked for. */
final class Panes {
    private final Session session;
    private final Map<Class<?>, ReadingPane> made = new HashMap<>();

    Panes(Session session) {
        this.session = session;
    }

    ReadingPane of(Class<? extends ReadingPane> kind, Function<Session, ? extends ReadingPane> make) {
        return made.computeIfAbsent(kind, k -> make.apply(session));
    }
}
