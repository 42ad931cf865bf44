package lane.formats.ledger;

import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import lane.base.Work;
import lane.study.Results;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.rendering.PDFRenderer;

/** The pages of a ledger as they will stand on paper, to be looked at before they are written. */
public final class PdfPages {
    static {
        Quiet.libraries();
    }

    private final byte[] document;
    private final int count;

    private PdfPages(byte[] document, int count) {
        this.document = document;
        this.count = count;
    }

    /** @throws java.util.concurrent.CancellationException when cancelled */
    public static PdfPages of(Results results, Made made, LedgerWriter.Drawing drawing, Work work) {
        Export export = LedgerWriter.export(results, made, drawing, work.stretch(0, 0.6));
        work.poll();
        work.progress("Setting pages", 0.6);
        var bytes = new ByteArrayOutputStream();
        try {
            Pdf.body(export).write(bytes);
            byte[] document = bytes.toByteArray();
            try (PDDocument read = Loader.loadPDF(document)) {
                return new PdfPages(document, read.getNumberOfPages());
            }
        } catch (IOException e) {
            // Nothing but memory is written to.
            throw new UncheckedIOException(e);
        }
    }

    public int count() {
        return count;
    }

    /**
     * A page as pixels.
     *
     * @param page counted from 0
     * @param dpi pixels an inch
     */
    public BufferedImage page(int page, float dpi) {
        try (PDDocument read = Loader.loadPDF(document)) {
            return new PDFRenderer(read).renderImageWithDPI(page, dpi);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
