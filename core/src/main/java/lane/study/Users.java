package lane.study;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Predicate;
import lane.quantity.Definitions;
import lane.quantity.FieldQuantity;
import lane.quantity.Quantity;
import lane.reading.Reading;
import lane.station.Station;

/** Who takes a quantity, or a field as it stands in the files. */
public final class Users {
    private Users() {}

    /** One that takes it, for a sentence: reading "Mass flow".
     *
     * @param kind quantity, reading or station
     */
    public record User(String kind, String name) {}

    /** All that could not be computed without a quantity of the study. */
    public static List<User> of(Study study, Quantity q) {
        List<User> users = new ArrayList<>();
        new Definitions(study.quantities()).usersOf(q).forEach(u -> users.add(new User("quantity", u.name())));
        direct(study, q.id()::equals, users);
        return users;
    }

    /**
     * The readings and stations that take a field, a component or the magnitude of it without a formula between. A quantity of
     * the study with the same key goes before the field.
     */
    public static List<User> ofField(Study study, String field) {
        List<User> users = new ArrayList<>();
        direct(
                study,
                key -> study.quantities().stream().noneMatch(q -> q.id().equals(key))
                        && FieldQuantity.field(key).equals(field),
                users);
        return users;
    }

    private static void direct(Study study, Predicate<String> takes, List<User> users) {
        for (Reading r : study.readings()) {
            if (r.quantities().stream().anyMatch(takes)) {
                users.add(new User("reading", r.name()));
            }
        }
        for (Station s : study.stations()) {
            String shaped = s.shape().shapedBy();
            if (!shaped.isBlank() && takes.test(shaped)) {
                users.add(new User("station", s.name()));
            }
        }
    }
}
