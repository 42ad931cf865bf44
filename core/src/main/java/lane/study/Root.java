package lane.study;

import java.util.Collection;
import java.util.Optional;
import lane.base.LaneException;

/**
 * A folder that stands elsewhere on another machine. Paths of the study that begin with its name in braces, such as
 * {@code {runs}/night/t*.vtu}, start from it.
 *
 * @param name letters, digits, - and _
 * @param here where it is on the machines of whoever looks at the study; relative to the study's folder or from the root of the
 *     disk
 * @param cluster where the machines of the cluster see it; blank where that is the same
 */
public record Root(String name, String here, String cluster) {
    /** @throws LaneException when the name is none, or no place is given */
    public Root {
        name = name == null ? "" : name;
        here = here == null ? "" : here;
        cluster = cluster == null ? "" : cluster;
        if (!name.matches("[\\p{L}\\p{N}_-]+")) {
            throw new LaneException("\"" + name
                    + "\" is no name of a root; take letters, digits, - and _, and write paths as {name}/file.");
        }
        if (here.isBlank() && cluster.isBlank()) {
            throw new LaneException("The root \"" + name + "\" is nowhere; say where it is here or on the cluster.");
        }
    }

    /** How paths begin that start from it. */
    public String begin() {
        return "{" + name + "}/";
    }

    /** Where it is. */
    public String place(boolean onCluster) {
        return onCluster && !cluster.isBlank() || here.isBlank() ? cluster : here;
    }

    /** The root that a path starts from; empty for a path of its own. */
    public static Optional<Root> of(Collection<Root> roots, String path) {
        return roots.stream().filter(r -> path.startsWith(r.begin())).findFirst();
    }
}
