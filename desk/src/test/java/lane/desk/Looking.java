package lane.desk;

import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.Proxy;
import java.util.concurrent.Callable;
import java.util.concurrent.TimeUnit;
import java.util.function.Predicate;
import java.util.function.Supplier;
import javafx.application.Platform;
import javafx.scene.Node;
import org.hamcrest.Matcher;
import org.testfx.api.FxRobot;
import org.testfx.service.query.EmptyNodeQueryException;
import org.testfx.service.query.NodeQuery;

/**
 * A robot that looks for nodes on the thread of the interface: a scene that is built anew while another thread walks
 * through it shows that thread lists that are half filled. What is asked for and not there yet is waited for, as a person
 * would.
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
                (proxy, method, arguments) -> patiently(() -> Windowed.onFxNow(() -> {
                    Object answer = invoked(() -> method.invoke(query, arguments));
                    return answer instanceof NodeQuery next ? onFx(next) : answer;
                })));
    }

    private static Object patiently(Supplier<Object> query) throws InterruptedException {
        long end = System.nanoTime() + TimeUnit.SECONDS.toNanos(60);
        while (true) {
            try {
                return query.get();
            } catch (EmptyNodeQueryException e) {
                // The thread of the interface cannot wait for itself.
                if (Platform.isFxApplicationThread() || System.nanoTime() > end) {
                    throw e;
                }
                Thread.sleep(20);
            }
        }
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
