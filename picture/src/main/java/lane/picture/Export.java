package lane.picture;

import java.awt.Dimension;
import java.awt.Graphics2D;
import java.awt.image.BufferedImage;
import java.awt.image.RenderedImage;
import java.io.IOException;
import java.io.OutputStream;
import java.io.StringWriter;
import java.nio.charset.StandardCharsets;
import java.util.function.Consumer;
import javax.imageio.ImageIO;
import org.apache.batik.dom.GenericDOMImplementation;
import org.apache.batik.svggen.ImageHandlerBase64Encoder;
import org.apache.batik.svggen.SVGGeneratorContext;
import org.apache.batik.svggen.SVGGraphics2D;
import org.apache.batik.svggen.SVGGraphics2DIOException;
import org.apache.batik.svggen.SimpleImageHandler;

/** Pictures as PNG pixels or SVG text. */
public final class Export {
    private Export() {}

    /** Draws into an image of the given size in points, {@code scale} pixels a point. */
    public static BufferedImage image(int width, int height, double scale, Consumer<Graphics2D> paint) {
        var image = new BufferedImage(
                (int) Math.ceil(width * scale), (int) Math.ceil(height * scale), BufferedImage.TYPE_INT_ARGB);
        Graphics2D g = image.createGraphics();
        g.scale(scale, scale);
        paint.accept(g);
        g.dispose();
        return image;
    }

    /** Pixels as an image; the array is shared. */
    public static BufferedImage image(int[] argb, int width, int height) {
        var image = new BufferedImage(width, height, BufferedImage.TYPE_INT_ARGB);
        image.setRGB(0, 0, width, height, argb, 0, width);
        return image;
    }

    public static void png(BufferedImage image, OutputStream out) throws IOException {
        ImageIO.write(image, "png", out);
    }

    /**
     * PNG with its resolution and with words about it in its metadata.
     *
     * @param dpi pixels an inch
     * @param facts keyword (Latin letters) to text; the text may be any
     */
    public static void png(BufferedImage image, double dpi, java.util.Map<String, String> facts, OutputStream out)
            throws IOException {
        var writer = ImageIO.getImageWritersByFormatName("png").next();
        var type = javax.imageio.ImageTypeSpecifier.createFromRenderedImage(image);
        var data = writer.getDefaultImageMetadata(type, writer.getDefaultWriteParam());
        var root = new javax.imageio.metadata.IIOMetadataNode("javax_imageio_png_1.0");
        var size = new javax.imageio.metadata.IIOMetadataNode("pHYs");
        String metre = String.valueOf(Math.round(dpi / 0.0254));
        size.setAttribute("pixelsPerUnitXAxis", metre);
        size.setAttribute("pixelsPerUnitYAxis", metre);
        size.setAttribute("unitSpecifier", "meter");
        root.appendChild(size);
        var texts = new javax.imageio.metadata.IIOMetadataNode("iTXt");
        facts.forEach((key, value) -> {
            var one = new javax.imageio.metadata.IIOMetadataNode("iTXtEntry");
            one.setAttribute("keyword", key);
            one.setAttribute("compressionFlag", "FALSE");
            one.setAttribute("compressionMethod", "0");
            one.setAttribute("languageTag", "");
            one.setAttribute("translatedKeyword", "");
            one.setAttribute("text", value);
            texts.appendChild(one);
        });
        if (!facts.isEmpty()) {
            root.appendChild(texts);
        }
        data.mergeTree("javax_imageio_png_1.0", root);
        try (var stream = ImageIO.createImageOutputStream(out)) {
            writer.setOutput(stream);
            writer.write(data, new javax.imageio.IIOImage(image, null, data), null);
        } finally {
            writer.dispose();
        }
    }

    /** The same drawing as SVG; text stays text, a field's pixels are embedded. */
    public static void svg(int width, int height, Consumer<Graphics2D> paint, OutputStream out) throws IOException {
        var document = GenericDOMImplementation.getDOMImplementation()
                .createDocument("http://www.w3.org/2000/svg", "svg", null);
        var context = SVGGeneratorContext.createDefault(document);
        context.setComment(null);
        context.setGenericImageHandler(new SimpleImageHandler(new PngInside()));
        var g = new SVGGraphics2D(context, false);
        g.setSVGCanvasSize(new Dimension(width, height));
        paint.accept(g);
        var writer = new StringWriter();
        g.stream(writer, true);
        String text = writer.toString();
        // The document type before it would send readers to the network.
        out.write(text.substring(text.indexOf("<svg")).getBytes(StandardCharsets.UTF_8));
    }

    /** Pixels stand in the SVG itself, as PNG. */
    private static final class PngInside extends ImageHandlerBase64Encoder {
        @Override
        public void encodeImage(RenderedImage image, OutputStream out) throws SVGGraphics2DIOException {
            try {
                ImageIO.write(image, "png", out);
            } catch (IOException e) {
                throw new SVGGraphics2DIOException("the pixels could not be written", e);
            }
        }
    }
}
