package lane.formula;

import java.util.List;

/** A piece of a formula as a tree. Places in the text do not count when two are compared. */
public sealed interface Node {
    Span span();

    /** The same without places, to be compared and kept under. */
    Node bare();

    /** A number. @param unit in quotes behind it; blank for none */
    record Num(double value, String unit, Span span, Span unitSpan) implements Node {
        @Override
        public Node bare() {
            return new Num(value, unit, Span.NONE, Span.NONE);
        }
    }

    /** A name: of a quantity, a field, a reading, or of what is built in. */
    record Name(String name, Span span) implements Node {
        @Override
        public Node bare() {
            return new Name(name, Span.NONE);
        }
    }

    /** A component: {@code velocity.x}, {@code stress.xy}, {@code velocity.radial}. */
    record Member(Node of, String member, Span span, Span memberSpan) implements Node {
        @Override
        public Node bare() {
            return new Member(of.bare(), member, Span.NONE, Span.NONE);
        }
    }

    /** Something before its operand: {@code -} or {@code not}. */
    record Unary(String operator, Node of, Span span) implements Node {
        @Override
        public Node bare() {
            return new Unary(operator, of.bare(), Span.NONE);
        }
    }

    /** Something between two operands. @param at the operator's own place */
    record Binary(String operator, Node left, Node right, Span span, Span at) implements Node {
        @Override
        public Node bare() {
            return new Binary(operator, left.bare(), right.bare(), Span.NONE, Span.NONE);
        }
    }

    /** A function of arguments. */
    record Call(String function, List<Node> arguments, Span span, Span nameSpan) implements Node {
        public Call {
            arguments = List.copyOf(arguments);
        }

        @Override
        public Node bare() {
            return new Call(function, arguments.stream().map(Node::bare).toList(), Span.NONE, Span.NONE);
        }
    }

    /** {@code mean(body over station + station by weight)}. @param weight null for none */
    record Reduction(String kind, Node body, List<Place> over, Node weight, Span span, Span nameSpan) implements Node {
        public Reduction {
            over = List.copyOf(over);
        }

        @Override
        public Node bare() {
            return new Reduction(
                    kind,
                    body.bare(),
                    over.stream().map(p -> new Place(p.name, Span.NONE)).toList(),
                    weight == null ? null : weight.bare(),
                    Span.NONE,
                    Span.NONE);
        }
    }

    /** A station by name. */
    record Place(String name, Span span) {}

    /** {@code [x, y, z]}. */
    record Vector(List<Node> parts, Span span) implements Node {
        public Vector {
            parts = List.copyOf(parts);
        }

        @Override
        public Node bare() {
            return new Vector(parts.stream().map(Node::bare).toList(), Span.NONE);
        }
    }

    /** {@code body of lane}: the same formula in another lane, at the same place. */
    record OfLane(Node body, String lane, Span span, Span laneSpan) implements Node {
        @Override
        public Node bare() {
            return new OfLane(body.bare(), lane, Span.NONE, Span.NONE);
        }
    }

    /** {@code body at time}: the same formula at another time, at the same place. */
    record AtTime(Node body, Node time, Span span) implements Node {
        @Override
        public Node bare() {
            return new AtTime(body.bare(), time.bare(), Span.NONE);
        }
    }

    /** {@code body in frame}: coordinates and components within are those of the frame. */
    record InFrame(Node body, String frame, Span span, Span frameSpan) implements Node {
        @Override
        public Node bare() {
            return new InFrame(body.bare(), frame, Span.NONE, Span.NONE);
        }
    }

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
