package lane.formula;

import java.util.List;
import org.jspecify.annotations.Nullable;

/** A piece of a formula as a tree, with its place in the text. */
public sealed interface Node {
    Span span();

    /**
     * A number.
     *
     * @param unit in quotes behind it; blank for none
     */
    record Num(double value, String unit, Span span, Span unitSpan) implements Node {}

    /** A name: of a quantity, a field, a reading, or of what is built in. */
    record Name(String name, Span span) implements Node {}

    /** A component: {@code velocity.x}, {@code stress.xy}, {@code velocity.radial}. */
    record Member(Node of, String member, Span span, Span memberSpan) implements Node {}

    /** Something before its operand: {@code -} or {@code not}. */
    record Unary(String operator, Node of, Span span) implements Node {}

    /**
     * Something between two operands.
     *
     * @param at the operator's own place
     */
    record Binary(String operator, Node left, Node right, Span span, Span at) implements Node {}

    /** A function of arguments. */
    record Call(String function, List<Node> arguments, Span span, Span nameSpan) implements Node {
        public Call {
            arguments = List.copyOf(arguments);
        }
    }

    /**
     * {@code mean(body over station + station by weight)}.
     *
     * @param weight null for none
     */
    record Reduction(
            String kind,
            Node body,
            List<Place> over,
            @Nullable Node weight,
            Span span,
            Span nameSpan) implements Node {
        public Reduction {
            over = List.copyOf(over);
        }
    }

    /** A station by name. */
    record Place(String name, Span span) {}

    /** {@code [x, y, z]}. */
    record Vector(List<Node> parts, Span span) implements Node {
        public Vector {
            parts = List.copyOf(parts);
        }
    }

    /** {@code body of lane}: the same formula in another lane, at the same place. */
    record OfLane(Node body, String lane, Span span, Span laneSpan) implements Node {}

    /** {@code body at time}: the same formula at another time, at the same place. */
    record AtTime(Node body, Node time, Span span) implements Node {}

    /** {@code body in frame}: coordinates and components within are those of the frame. */
    record InFrame(Node body, String frame, Span span, Span frameSpan) implements Node {}

    /** The pieces it is made of. */
    default List<Node> parts() {
        return switch (this) {
            case Num _, Name _ -> List.of();
            case Member m -> List.of(m.of());
            case Unary u -> List.of(u.of());
            case Binary b -> List.of(b.left(), b.right());
            case Call c -> c.arguments();
            case Reduction r -> r.weight() == null ? List.of(r.body()) : List.of(r.body(), r.weight());
            case Vector v -> v.parts();
            case OfLane o -> List.of(o.body());
            case AtTime a -> List.of(a.body(), a.time());
            case InFrame f -> List.of(f.body());
        };
    }
}
