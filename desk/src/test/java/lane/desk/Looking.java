package lane.desk;

import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.Proxy;
import java.util.concurrent.Callable;
import java.util.function.Predicate;
import javafx.scene.Node;
import org.hamcrest.Matcher;
import org.testfx.api.FxRobot;
import org.testfx.service.query.NodeQuery;

/**
 * A robot that looks for nodes on the thread of the interface: a scene that is built anew while another thread walks
 * through it shows that thread lists that are half filled.
 */
public final class Looking extends FxRobot {
    @Override
    public NodeQuery lookup(String query) {
        return Windowed.onFxNow(() -> onFx(super.lookup(query)));
    }

    @Override
    public <T extends Node> NodeQuery lookup(Matcher<T> matcher) {
        return Windowed.onFxNow(() -> onFx(super.lookup(matcher)));
    }

    @Override
    public <T extends Node> NodeQuery lookup(Predicate<T> predicate) {
        return Windowed.onFxNow(() -> onFx(super.lookup(predicate)));
    }

    private static NodeQuery onFx(NodeQuery query) {
        return (NodeQuery) Proxy.newProxyInstance(
                NodeQuery.class.getClassLoader(),
                new Class<?>[] {NodeQuery.class},
                (proxy, method, arguments) -> Windowed.onFxNow(() -> {
                    Object answer = invoked(() -> method.invoke(query, arguments));
                    return answer instanceof NodeQuery next ? onFx(next) : answer;
                }));
    }

    private static Object invoked(Callable<Object> call) throws Exception {
        try {
            return call.call();
        } catch (InvocationTargetException e) {
            if (e.getCause() instanceof RuntimeException thrown) {
                throw thrown;
            }
            throw e;
        }
    }
}
