package lane.cli;

import java.io.IOException;
import java.io.PrintStream;
import java.io.PrintWriter;
import java.io.Writer;
import lane.base.LaneException;
import lane.base.Plain;
import lane.formats.io.AtomicFile;

/** What is written for people to read: names that came from files cannot act on the terminal, and what is lost is told. */
final class Console {
    private Console() {}

    /** Lines of text. */
    static void lines(String text) {
        System.out.println(Plain.lines(text));
    }

    /** The bytes of a file, as they are. */
    static void bytes(AtomicFile.Body body) {
        try {
            body.write(System.out);
        } catch (IOException e) {
            throw new LaneException("The output could not be written: " + e.getMessage() + ".", e);
        }
    }

    /** Whether all went out. */
    static boolean complete() {
        System.out.flush();
        return !System.out.checkError();
    }

    /** Lets go out what a writer still holds of a line without an end. */
    static void end(PrintWriter writer) {
        writer.close();
    }

    /** A writer to a stream for whole lines, cleaned. */
    static PrintWriter writer(PrintStream to) {
        return new PrintWriter(
                new Writer() {
                    private final StringBuilder line = new StringBuilder();

                    @Override
                    public void write(char[] text, int from, int length) {
                        for (int i = from; i < from + length; i++) {
                            if (text[i] == '\n') {
                                to.println(Plain.lines(line.toString()));
                                line.setLength(0);
                            } else {
                                line.append(text[i]);
                            }
                        }
                    }

                    @Override
                    public void flush() {
                        to.flush();
                    }

                    @Override
                    public void close() {
                        if (!line.isEmpty()) {
                            to.print(Plain.lines(line.toString()));
                            line.setLength(0);
                        }
                        to.flush();
                    }
                },
                true);
    }
}
