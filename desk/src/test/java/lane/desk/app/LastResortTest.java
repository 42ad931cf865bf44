package lane.desk.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import org.junit.jupiter.api.Test;

/** A fault that nobody caught is noted with its thread and told; one in the telling ends there. */
class LastResortTest {
    private final List<String> noted = Collections.synchronizedList(new ArrayList<>());
    private final List<String> said = Collections.synchronizedList(new ArrayList<>());

    private String note(String doing, Throwable fault) {
        noted.add(doing + ": " + fault.getMessage());
        return doing + " failed";
    }

    private void fall(LastResort handler) throws InterruptedException {
        Thread thread = Thread.ofPlatform().name("painter").unstarted(() -> {
            throw new IllegalStateException("no brush");
        });
        thread.setUncaughtExceptionHandler(handler);
        thread.start();
        thread.join();
    }

    @Test
    void whatNobodyCaughtIsNotedAndTold() throws Exception {
        fall(new LastResort(this::note, said::add));
        assertThat(noted).containsExactly("Work on the thread \"painter\": no brush");
        assertThat(said).containsExactly("Work on the thread \"painter\" failed");
    }

    @Test
    void aFaultInTheTellingEndsThere() throws Exception {
        fall(new LastResort(this::note, s -> {
            throw new IllegalStateException("no voice");
        }));
        assertThat(noted).containsExactly("Work on the thread \"painter\": no brush", "Telling of a fault: no voice");
    }
}
