package lane.reading;

import java.util.Optional;

/** A number of a curve, whoever gives that: of a run the curve is read, of a theory or a table it is theirs. */
public interface OfCurve extends OfAnother {
    @Override
    default Form form() {
        return Form.NUMBER;
    }

    @Override
    default Optional<Ask> curve() {
        return Optional.of(of());
    }

    @Override
    default boolean inPieces() {
        return of().inPieces();
    }

    @Override
    default Outcome read(Reading reading, ReadingContext on) {
        Outcome curve = of().read(reading.in("").asking(of()), on);
        return curve instanceof Profile p ? of(reading, p) : curve;
    }
}
