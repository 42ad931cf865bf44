package lane.provenance;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import lane.provenance.Provenance.Input;
import lane.provenance.Provenance.Other;
import lane.provenance.Provenance.Step;

/**
 * Trails as a graph: files, what was read of them, quantities and stations, readings, checks, and what rests on what. What several
 * trails share stands once.
 *
 * @param edges from what is taken to what takes it, as places among the nodes
 */
public record TrailGraph(List<Node> nodes, List<Edge> edges) {
    /** Where a node stands along the chain. */
    public enum Stop {
        FILE("files"),
        SOURCE("source"),
        QUANTITY("quantity"),
        STATION("station"),
        READING("reading"),
        CHECK("check");

        private final String word;

        Stop(String word) {
            this.word = word;
        }

        public String word() {
            return word;
        }

        static Stop of(Step step) {
            for (Stop s : values()) {
                if (s.word.equals(step.stop())) {
                    return s;
                }
            }
            return READING;
        }
    }

    /**
     * A box of the picture.
     *
     * @param lines the first says what it is; files are one a line
     * @param typed whether it is a number that somebody typed
     */
    public record Node(Stop stop, List<String> lines, boolean typed) {
        public Node {
            lines = List.copyOf(lines);
        }
    }

    public record Edge(int from, int to) {}

    /** More files of one run are told by their number. */
    private static final int FILES = 4;

    public TrailGraph {
        nodes = List.copyOf(nodes);
        edges = List.copyOf(edges);
    }

    /** One trail, or several that end alike, such as those of all lanes. */
    public static TrailGraph of(List<Provenance> trails) {
        var made = new Making();
        trails.forEach(made::add);
        return new TrailGraph(made.nodes, List.copyOf(made.edges));
    }

    /** Nodes and edges while they are collected. */
    private static final class Making {
        private static final int NONE = -1;

        private final List<Node> nodes = new ArrayList<>();
        private final Set<Edge> edges = new LinkedHashSet<>();
        private final Map<Object, Integer> known = new LinkedHashMap<>();

        void add(Provenance trail) {
            List<List<Step>> chains = new ArrayList<>();
            chains.add(trail.steps());
            trail.others().stream().map(Other::steps).forEach(chains::add);
            List<List<Input>> files = files(trail.inputs(), chains);
            // What it was compared with comes first, so that the steps of the own chain can take it.
            Map<Integer, List<Integer>> compared = new LinkedHashMap<>();
            for (int i = chains.size() - 1; i >= 1; i--) {
                int at = Math.min(trail.others().get(i - 1).at(), trail.steps().size() - 1);
                compared.computeIfAbsent(at, k -> new ArrayList<>())
                        .addAll(chain(chains.get(i), files.get(i), Map.of()));
            }
            chain(chains.getFirst(), files.getFirst(), compared);
        }

        /**
         * @param compared ends of other chains by the step that takes them
         * @return what nothing of the chain takes
         */
        private Set<Integer> chain(List<Step> steps, List<Input> files, Map<Integer, List<Integer>> compared) {
            var ends = new LinkedHashSet<Integer>();
            int run = files.isEmpty() ? NONE : file(files);
            if (run != NONE) {
                ends.add(run);
            }
            int source = run;
            for (int i = 0; i < steps.size(); i++) {
                Step step = steps.get(i);
                Stop stop = Stop.of(step);
                Set<Integer> taken = new LinkedHashSet<>(
                        switch (stop) {
                            case FILE, SOURCE, STATION -> List.of(run);
                            case QUANTITY -> List.of(source);
                            case READING, CHECK -> ends;
                        });
                taken.addAll(compared.getOrDefault(i, List.of()));
                taken.remove(NONE);
                int node = node(step, stop, taken);
                if (stop == Stop.SOURCE) {
                    boolean read = step.settings().containsKey("read") || source == NONE;
                    run = read ? node : run;
                    source = node;
                }
                ends.removeAll(taken);
                ends.add(node);
            }
            return ends;
        }

        /** A step stands once where it takes the same. */
        private int node(Step step, Stop stop, Set<Integer> taken) {
            return known.computeIfAbsent(List.of(step, taken), k -> {
                nodes.add(new Node(
                        stop,
                        List.of(step.text(), step.method().name()),
                        step.method().equals(Method.TYPED)));
                int node = nodes.size() - 1;
                taken.forEach(t -> edges.add(new Edge(t, node)));
                return node;
            });
        }

        private int file(List<Input> files) {
            return known.computeIfAbsent(files, k -> {
                List<String> lines = new ArrayList<>(
                        files.stream().limit(FILES).map(Input::brief).toList());
                if (files.size() > FILES) {
                    lines.add("and " + (files.size() - FILES) + " more");
                }
                nodes.add(new Node(Stop.FILE, lines, false));
                return nodes.size() - 1;
            });
        }

        /** Files of each chain: those that a step of it names, and those that follow them. */
        private static List<List<Input>> files(List<Input> inputs, List<List<Step>> chains) {
            List<List<Input>> out = new ArrayList<>();
            chains.forEach(c -> out.add(new ArrayList<>()));
            int at = 0;
            for (Input input : inputs) {
                for (int i = 0; i < chains.size(); i++) {
                    if (chains.get(i).stream().anyMatch(s -> names(s, input))) {
                        at = i;
                        break;
                    }
                }
                out.get(at).add(input);
            }
            return out;
        }

        private static boolean names(Step step, Input input) {
            return step.stop().equals(Stop.SOURCE.word)
                    && (step.text().contains(input.brief())
                            || step.settings().values().stream()
                                    .anyMatch(v -> Data.text(v).contains(input.brief())));
        }
    }
}
