package lane.desk;

import java.util.List;

/**
 * Something that only the user can decide. It stands under the header until it is answered; work goes on meanwhile.
 *
 * @param text a sentence or two: what, and what each answer does
 * @param answers the likeliest first
 */
public record Question(String text, List<Answer> answers) {
    public Question {
        answers = List.copyOf(answers);
    }

    /** @param act what is done; the question is gone then */
    public record Answer(String word, Runnable act) {}

    /** The answer that leaves everything as it is. */
    public static Answer leave(String word) {
        return new Answer(word, () -> {});
    }
}
