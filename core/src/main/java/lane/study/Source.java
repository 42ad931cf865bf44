package lane.study;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import lane.field.Treatment;
import lane.reading.Reading;
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
     * @param file mesh and fields, relative to the study; with one {@code *} in its name a series of files over time
     * @param partFiles surfaces that carry boundary parts, named after the files, relative to the study
     * @param regions integer cell array that names the parts; blank for none
     * @param family runs of one family are meshes of one problem, coarse to fine in lane order
     * @param treatment how the files are to be understood where they do not say it themselves
     */
    record Simulation(
            String id,
            String name,
            String file,
            List<String> partFiles,
            String regions,
            String family,
            Treatment treatment)
            implements Source {
        public Simulation {
            partFiles = List.copyOf(partFiles);
            treatment = treatment == null ? Treatment.NONE : treatment;
        }

        /** A run whose files say everything. */
        public Simulation(String id, String name, String file, List<String> partFiles, String regions, String family) {
            this(id, name, file, partFiles, regions, family, Treatment.NONE);
        }

        public Simulation with(Treatment other) {
            return new Simulation(id, name, file, partFiles, regions, family, other);
        }

        public Simulation withRegions(String other) {
            return new Simulation(id, name, file, partFiles, other, family, treatment);
        }

        public Simulation withFile(String other) {
            return new Simulation(id, name, other, partFiles, regions, family, treatment);
        }

        public Simulation withPartFiles(List<String> others) {
            return new Simulation(id, name, file, others, regions, family, treatment);
        }

        @Override
        public Simulation named(String other) {
            return new Simulation(id, other, file, partFiles, regions, family, treatment);
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

        /**
         * What it says to a reading of a study; to a number of a curve also what it says to that curve, which may be a reading of
         * its own. Empty where it says nothing.
         */
        public Optional<Curve> answer(Study study, Reading reading) {
            return answer(reading.id()).or(() -> reading.ask().curve().flatMap(behind -> study.readings().stream()
                    .filter(r -> r.ask().equals(behind))
                    .flatMap(r -> answer(r.id()).stream())
                    .findFirst()));
        }

        private Optional<Curve> answer(String reading) {
            return answers.stream().filter(c -> c.reading().equals(reading)).findFirst();
        }

        @Override
        public Reference named(String other) {
            return new Reference(id, other, kind, files, constants, answers);
        }
    }
}
