package lane.study;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Deque;
import java.util.List;

/** The study as it is now, and the way back and forth. Not thread-safe: it belongs to the interface thread. */
public final class UndoStack {
    private static final int DEEPEST = 500;

    /**
     * A state on the way back or forth.
     *
     * @param edit what led away from it
     */
    public record State(Study study, String edit) {}

    private final Deque<State> back = new ArrayDeque<>();
    private final Deque<State> forth = new ArrayDeque<>();
    private Study now;
    private Study saved;

    public UndoStack(Study study) {
        now = study;
        saved = study;
    }

    /** One that goes on with the way back of another session; nothing of it counts as saved. */
    public UndoStack(List<State> way, Study now, Study saved) {
        this.now = now;
        this.saved = saved;
        way.forEach(back::push);
    }

    /** The states on the way back, the oldest first. */
    public List<State> way() {
        List<State> out = new ArrayList<>(back);
        Collections.reverse(out);
        return out;
    }

    public Study now() {
        return now;
    }

    /** Makes an edit. An edit of the same non-blank name right after another becomes one with it (a drag, say). */
    public void edit(String name, Study next, boolean joins) {
        if (next.equals(now)) {
            return;
        }
        boolean one = joins && !back.isEmpty() && back.peek().edit.equals(name);
        if (!one) {
            back.push(new State(now, name));
            if (back.size() > DEEPEST) {
                back.removeLast();
            }
        }
        forth.clear();
        now = next;
    }

    /** The name of the edit that undo takes back, or blank. */
    public String undoes() {
        return back.isEmpty() ? "" : back.peek().edit;
    }

    public String redoes() {
        return forth.isEmpty() ? "" : forth.peek().edit;
    }

    public void undo() {
        if (!back.isEmpty()) {
            State last = back.pop();
            forth.push(new State(now, last.edit));
            now = last.study;
        }
    }

    public void redo() {
        if (!forth.isEmpty()) {
            State next = forth.pop();
            back.push(new State(now, next.edit));
            now = next.study;
        }
    }

    public boolean changed() {
        return !now.equals(saved);
    }

    /** Notes which study was written to its file. */
    public void wrote(Study study) {
        saved = study;
    }

    /** Ends joining: the next edit is one of its own even under the same name. */
    public void pause() {
        if (!back.isEmpty()) {
            State last = back.pop();
            back.push(new State(last.study, last.edit + " "));
        }
    }
}
