package lane.formats.ledger;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import lane.base.LaneException;
import lane.formats.io.AtomicFile;
import lane.formats.table.CsvWriter;

/** What a ledger can be written as, besides the tables and the record that every ledger has. */
public enum LedgerFormat {
    XLSX(
            "xlsx",
            "ledger.xlsx",
            "a workbook with a sheet for each table, charts of curves, and differences as formulas") {
        @Override
        void write(Into set, Export export) {
            set.add(file(), Xlsx.body(export));
        }
    },
    PDF("pdf", "ledger.pdf", "pages with contents, tables, figures and trails, to be signed and filed") {
        @Override
        void write(Into set, Export export) {
            set.add(file(), Pdf.body(export));
        }
    },
    MARKDOWN("md", "ledger.md", "the tables as Markdown") {
        @Override
        void write(Into set, Export export) {
            text(set, () -> Markdown.of(export));
        }
    },
    LATEX("tex", "ledger.tex", "the tables for LaTeX, to be read in with \\input") {
        @Override
        void write(Into set, Export export) {
            text(set, () -> Latex.of(export));
        }
    },
    HTML("html", "ledger.html", "one page with tables, figures and the trail of each number") {
        @Override
        void write(Into set, Export export) {
            text(set, () -> Html.of(export));
        }
    },
    JUNIT("junit", "checks.xml", "the checks as a test report in JUnit's XML, for build servers") {
        @Override
        void write(Into set, Export export) {
            text(set, () -> JUnitXml.of(export));
        }
    },
    FIGURES(
            "figures",
            "figure-NAME.svg",
            "each reading and kept view drawn, as SVG and PNG with their numbers, and trails as graphs, as SVG") {
        @Override
        void write(Into set, Export export) {
            for (Export.Figure f : export.figures()) {
                set.add(f.name() + ".svg", out -> out.write(f.svg().get()));
                if (f.shows() != Export.Shows.TRAIL) {
                    // Graphs of trails can be wide, and are read as lines.
                    set.add(f.name() + ".png", out -> out.write(f.png().get()));
                }
                if (!f.numbers().isEmpty()) {
                    set.add(f.name() + ".csv", CsvWriter.body(f.numbers()));
                }
            }
        }
    };

    /** Where files of a format go. */
    @FunctionalInterface
    interface Into {
        void add(String name, AtomicFile.Body body);
    }

    /** Made when it is written, so that several formats can be made at once. */
    final void text(Into set, Supplier<String> of) {
        set.add(file, out -> out.write(of.get().getBytes(StandardCharsets.UTF_8)));
    }

    private final String word;
    private final String file;
    private final String what;

    LedgerFormat(String word, String file, String what) {
        this.word = word;
        this.file = file;
        this.what = what;
    }

    /** As it is asked for on the command line. */
    public String word() {
        return word;
    }

    /** The file that it becomes. */
    public String file() {
        return file;
    }

    /** For people. */
    public String what() {
        return what;
    }

    abstract void write(Into set, Export export);

    /** Whether figures have to be drawn for it. */
    public boolean figures() {
        return this == FIGURES || this == HTML || this == PDF;
    }

    /**
     * @param words as on the command line; {@code all} for each
     * @throws LaneException naming what is known
     */
    public static Set<LedgerFormat> of(List<String> words) {
        Set<LedgerFormat> out = EnumSet.noneOf(LedgerFormat.class);
        for (String w : words) {
            String asked = w.strip().toLowerCase(Locale.ROOT);
            if (asked.equals("all")) {
                out.addAll(List.of(values()));
            } else if (!asked.isEmpty() && !asked.equals("csv") && !asked.equals("json")) {
                out.add(Arrays.stream(values())
                        .filter(f -> f.word.equals(asked))
                        .findFirst()
                        .orElseThrow(() -> new LaneException("A ledger is not written as \"" + w + "\"; known are "
                                + Arrays.stream(values()).map(f -> f.word).collect(Collectors.joining(", "))
                                + " and all (csv and json are always written).")));
            }
        }
        return out;
    }
}
