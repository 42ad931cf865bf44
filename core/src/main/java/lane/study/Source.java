package lane.study;

import java.util.List;
import java.util.Map;
import lane.reference.Curve;

/** Where numbers come from: a lane of the study. */
public sealed interface Source {
    /** Stable key within the study. */
    String id();

    /** Short name on the lane's chip. */
    String name();

    Source named(String other);

    /**
     * A simulation run.
     *
     * @param file mesh and fields, relative to the study
     * @param partFiles surfaces that carry boundary parts, named after the files, relative to the study
     * @param regions integer cell array that names the parts; blank for none
     * @param family runs of one family are meshes of one problem, coarse to fine in lane order
     */
    record Simulation(String id, String name, String file, List<String> partFiles, String regions, String family)
            implements Source {
        public Simulation {
            partFiles = List.copyOf(partFiles);
        }

        @Override
        public Simulation named(String other) {
            return new Simulation(id, other, file, partFiles, regions, family);
        }
    }

    /** What a reference is: it decides how it is drawn. */
    enum Kind {
        THEORY,
        MEASUREMENT
    }

    /**
     * A theory, a measurement or hand values.
     *
     * @param files tables it was made from, relative to the study
     * @param constants in SI units, by the names that formulas use
     * @param answers what it says to which reading
     */
    record Reference(
            String id, String name, Kind kind, List<String> files, Map<String, Double> constants, List<Curve> answers)
            implements Source {
        public Reference {
            constants = java.util.Collections.unmodifiableMap(new java.util.LinkedHashMap<>(constants));
            answers = List.copyOf(answers);
            files = List.copyOf(files);
        }

        @Override
        public Reference named(String other) {
            return new Reference(id, other, kind, files, constants, answers);
        }
    }
}
