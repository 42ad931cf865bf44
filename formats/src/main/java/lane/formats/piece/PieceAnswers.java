package lane.formats.piece;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import lane.base.LaneException;
import lane.formats.io.FileHash;
import lane.formats.io.FileStamp;
import lane.provenance.Provenance;
import lane.reading.Instant;
import lane.study.Answered;
import lane.study.Answers;
import lane.study.Journal;
import lane.study.Source;

/**
 * Answers as a folder of pieces keeps them. One is taken where its files are what they were: by size and time of change, and
 * where these differ, as on another machine, by content. What is made is collected and put there as one piece, or each by
 * itself where nobody collects.
 */
public final class PieceAnswers implements Answers {
    private final InputFiles library;
    private final PieceFolder folder;
    private final Function<Source.Simulation, Optional<String>> awaited;
    /** What was made, by time and files; null where each is put there at once. */
    private final Map<List<Object>, PieceLine> made = new LinkedHashMap<>();

    private boolean collecting;

    /** @param awaited why what is missing of a lane is not computed here; empty where it is */
    public PieceAnswers(InputFiles library, PieceFolder folder, Function<Source.Simulation, Optional<String>> awaited) {
        this.library = library;
        this.folder = folder;
        this.awaited = awaited;
        folder.refresh();
    }

    public PieceFolder folder() {
        return folder;
    }

    @Override
    public Optional<String> awaited(Source.Simulation lane) {
        return awaited.apply(lane);
    }

    @Override
    public Optional<Answered> of(Source.Simulation lane, List<?> definition, double time) {
        return PieceFolder.key(lane.file(), definition).flatMap(key -> {
            for (PieceLine line : folder.answers(key).reversed()) {
                if (Double.isNaN(time) || Double.compare(time, line.time()) == 0) {
                    Optional<Answered> found = whole(line, key);
                    if (found.isPresent()) {
                        return found;
                    }
                }
            }
            return Optional.empty();
        });
    }

    private Optional<Answered> whole(PieceLine line, String key) {
        try {
            // A file that is here has to be what it was, also where the run has no time or cannot be read.
            return line.files().stream().allMatch(f -> gone(f) || holds(f))
                    ? Optional.of(line.answer(key))
                    : Optional.empty();
        } catch (IllegalArgumentException e) {
            // Written by a program that knows other kinds of answers.
            return Optional.empty();
        }
    }

    private boolean gone(PieceLine.Seen file) {
        try {
            library.stamp(file.path());
            return false;
        } catch (LaneException e) {
            return true;
        }
    }

    private boolean holds(PieceLine.Seen file) {
        try {
            FileStamp now = library.stamp(file.path());
            return now.size() == file.bytes()
                    && (now.changed() == file.changed()
                            || library.content(file.path()).equals(file.sha256()));
        } catch (LaneException e) {
            return false;
        }
    }

    @Override
    public synchronized void keep(Source.Simulation lane, List<?> definition, Answered answered) {
        PieceFolder.key(lane.file(), definition)
                .ifPresent(key -> line(answered.time(), answered.inputs()).ifPresent(line -> {
                    try {
                        line.add(key, answered);
                    } catch (IllegalArgumentException e) {
                        // An answer of a kind that holds what no file can is computed anew each time.
                        return;
                    }
                    alone(key, line);
                }));
    }

    /** The line for what was read of some files at a time; empty where one of them cannot be told. */
    private Optional<PieceLine> line(double time, List<Provenance.Input> inputs) {
        List<PieceLine.Seen> files = new ArrayList<>();
        for (Provenance.Input i : inputs) {
            try {
                FileStamp stamp = library.read(i.path());
                files.add(new PieceLine.Seen(i.path(), i.sha256(), i.bytes(), stamp.changed()));
            } catch (LaneException e) {
                return Optional.empty();
            }
        }
        return Optional.of(
                collecting
                        ? made.computeIfAbsent(List.of(time, files), k -> PieceLine.at(time, files))
                        : PieceLine.at(time, files));
    }

    private void alone(String key, PieceLine line) {
        if (!collecting) {
            folder.put(FileHash.ofText(key + line.time() + line.files()).substring(0, 40), List.of(line));
        }
    }

    /** Does a work, and puts what is made meanwhile there as one piece; nothing where it fails. */
    public void collecting(String id, Runnable work) {
        synchronized (this) {
            made.clear();
            collecting = true;
        }
        try {
            work.run();
            synchronized (this) {
                folder.put(id, List.copyOf(made.values()));
            }
        } finally {
            synchronized (this) {
                made.clear();
                collecting = false;
            }
        }
    }

    private Optional<Instant> instant(String key, double time) {
        for (PieceLine line : folder.instants(key, time).reversed()) {
            try {
                if (line.files().stream().allMatch(this::holds)) {
                    return Optional.of(line.instant(key));
                }
            } catch (IllegalArgumentException e) {
                // Written by a program that knows other kinds: it is as if it were not there.
            }
        }
        return Optional.empty();
    }

    /** What single times answered, there first and then in another journal. */
    public Journal journal(Source.Simulation lane, List<?> definition, Journal own) {
        Optional<String> key = PieceFolder.key(lane.file(), definition);
        if (key.isEmpty()) {
            return own;
        }
        // Programs on other machines may share the user's folder, where two would write into one file.
        Journal besides = collecting ? Journal.NONE : own;
        return new Journal() {
            @Override
            public Optional<Instant> of(double time) {
                Optional<Instant> there = instant(key.get(), time);
                there.ifPresent(x -> library.oneKnown());
                return there.isPresent() ? there : besides.of(time);
            }

            @Override
            public void keep(double time, Instant instant) {
                besides.keep(time, instant);
                synchronized (PieceAnswers.this) {
                    // What could not be read at all may be read the next time.
                    if (collecting && !instant.inputs().isEmpty()) {
                        line(time, instant.inputs()).ifPresent(l -> l.add(key.get(), instant));
                    }
                }
            }
        };
    }
}
