package lane.desk.intake;

import java.util.List;
import java.util.Map;
import lane.base.LaneException;
import lane.desk.Session;
import lane.desk.TableDesk;
import lane.reference.Curve;
import lane.reference.Table;
import lane.study.Source;
import lane.study.Study;
import org.jspecify.annotations.Nullable;

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

    /** Other references of one table each that do not answer the reading yet. */
    private static List<Source.Reference> others(Session session, Source.Reference source, String reading) {
        return session.study().sources().stream()
                .filter(s -> s instanceof Source.Reference && !s.id().equals(source.id()))
                .map(Source.Reference.class::cast)
                .filter(r -> r.files().size() == 1
                        && r.answers().stream().noneMatch(a -> a.reading().equals(reading)))
                .toList();
    }

    /** Other references of one table each, of this kind, that do not answer the reading yet. */
    static List<Source.Reference> like(Session session, Source.Reference source, String file, String reading) {
        String kind = kind(session, session.study(), file);
        return others(session, source, reading).stream()
                .filter(r -> !kind.isBlank()
                        && kind(session, session.study(), r.files().getFirst()).equals(kind))
                .toList();
    }

    /** Tables that are looked at at once. */
    private static final int FEW = 20;

    /**
     * The same where there may be many: null as long as that is being found out.
     *
     * @param then called once it is, where it was not
     */
    static @Nullable List<Source.Reference> like(
            Session session, Source.Reference source, String file, String reading, Runnable then) {
        List<Source.Reference> others = others(session, source, reading);
        if (others.size() <= FEW) {
            return like(session, source, file, reading);
        }
        Map<String, TableDesk.Kind> kinds = kinds(session, then);
        if (kinds == null) {
            return null;
        }
        TableDesk.Kind own = kinds.get(file);
        return others.stream()
                .filter(r -> own != null && own.equals(kinds.get(r.files().getFirst())))
                .toList();
    }

    /**
     * What kind each table of the study is of; null as long as that is being found out.
     *
     * @param then called once it is, where it was not
     */
    static @Nullable Map<String, TableDesk.Kind> kinds(Session session, Runnable then) {
        return session.tables().kinds(session.study(), session.results(), then);
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
