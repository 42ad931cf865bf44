package lane.desk.intake;

import java.util.List;
import lane.base.LaneException;
import lane.desk.Session;
import lane.reference.Curve;
import lane.reference.Table;
import lane.study.Source;
import lane.study.Study;

/** Tables of one kind: what one of them answers, its like can answer too. */
final class Kin {
    private Kin() {}

    /** What a new table answers: the same as the newest one of its kind, with its own numbers. */
    static List<Curve> answers(Session session, Study study, String file) {
        boolean any = study.sources().stream()
                .anyMatch(s -> s instanceof Source.Reference r && !r.answers().isEmpty());
        String kind = any ? kind(session, study, file) : "";
        for (Source source : study.sources().reversed()) {
            if (source instanceof Source.Reference r) {
                for (String other : r.files()) {
                    if (!kind.isBlank()
                            && !other.equals(file)
                            && kind(session, study, other).equals(kind)) {
                        return r.answers().stream()
                                .filter(a -> file(a).equals(other))
                                .map(a -> of(a, file))
                                .toList();
                    }
                }
            }
        }
        return List.of();
    }

    /** Other references of one table each, of this kind, that do not answer the reading yet. */
    static List<Source.Reference> like(Session session, Source.Reference source, String file, String reading) {
        Study study = session.study();
        String kind = kind(session, study, file);
        return study.sources().stream()
                .filter(s -> s instanceof Source.Reference && !s.id().equals(source.id()))
                .map(Source.Reference.class::cast)
                .filter(r -> r.files().size() == 1
                        && !kind.isBlank()
                        && kind(session, study, r.files().getFirst()).equals(kind)
                        && r.answers().stream().noneMatch(a -> a.reading().equals(reading)))
                .toList();
    }

    private static String kind(Session session, Study study, String file) {
        try {
            Table table = session.library().tableStart(file, study.recipes());
            return table.layout().kind() + "/" + table.headers();
        } catch (LaneException e) {
            return "";
        }
    }

    private static String file(Curve curve) {
        return switch (curve) {
            case Curve.Columns c -> c.file();
            case Curve.WindowMean w -> w.file();
            default -> "";
        };
    }

    /** The same answer from another table. */
    static Curve of(Curve curve, String file) {
        return switch (curve) {
            case Curve.Columns c -> c.of(file);
            case Curve.WindowMean w -> w.of(file);
            default -> curve;
        };
    }
}
