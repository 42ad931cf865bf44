package lane.picture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.awt.Color;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.Map;
import javax.imageio.ImageIO;
import javax.xml.parsers.DocumentBuilderFactory;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.w3c.dom.Element;
import org.w3c.dom.Node;

/** Pictures as files, read back with other readers than wrote them. */
class ExportTest {
    private static Node metadata(byte[] png) throws IOException {
        var reader = ImageIO.getImageReadersByFormatName("png").next();
        try (var in = ImageIO.createImageInputStream(new ByteArrayInputStream(png))) {
            reader.setInput(in);
            return reader.getImageMetadata(0).getAsTree("javax_imageio_png_1.0");
        }
    }

    private static Element child(Node of, String name) {
        for (Node n = of.getFirstChild(); n != null; n = n.getNextSibling()) {
            if (n.getNodeName().equals(name)) {
                return (Element) n;
            }
        }
        throw new AssertionError("no " + name);
    }

    @ParameterizedTest
    @ValueSource(doubles = {72, 150, 300, 600})
    void aPngSaysItsResolutionAndWhatItShows(double dpi) throws IOException {
        BufferedImage image = Export.image(40, 30, 2, g -> {
            g.setColor(Color.RED);
            g.fillRect(0, 0, 20, 30);
        });
        Map<String, String> facts = new LinkedHashMap<>();
        facts.put("Station", "Spalt bei −20 °C, Größe \"α\"");
        facts.put("Study", "5f3a".repeat(16));
        var out = new ByteArrayOutputStream();
        Export.png(image, dpi, facts, out);
        Node root = metadata(out.toByteArray());
        Element size = child(root, "pHYs");
        assertThat(size.getAttribute("unitSpecifier")).isEqualTo("meter");
        assertThat(0.0254 * Integer.parseInt(size.getAttribute("pixelsPerUnitXAxis")))
                .isCloseTo(dpi, within(0.013));
        assertThat(size.getAttribute("pixelsPerUnitYAxis")).isEqualTo(size.getAttribute("pixelsPerUnitXAxis"));
        Element texts = child(root, "iTXt");
        Map<String, String> read = new LinkedHashMap<>();
        for (Node n = texts.getFirstChild(); n != null; n = n.getNextSibling()) {
            read.put(((Element) n).getAttribute("keyword"), ((Element) n).getAttribute("text"));
        }
        assertThat(read).isEqualTo(facts);
        BufferedImage back = ImageIO.read(new ByteArrayInputStream(out.toByteArray()));
        assertThat(back.getWidth()).isEqualTo(80);
        assertThat(back.getHeight()).isEqualTo(60);
        assertThat(back.getRGB(39, 30)).isEqualTo(0xFFFF0000);
        assertThat(back.getRGB(40, 30) >>> 24).isZero();
    }

    @Test
    void withoutFactsThereIsNoText() throws IOException {
        var out = new ByteArrayOutputStream();
        Export.png(Export.image(new int[] {0xFF010203, 0x80FFFFFF}, 2, 1), 100, Map.of(), out);
        Node root = metadata(out.toByteArray());
        for (Node n = root.getFirstChild(); n != null; n = n.getNextSibling()) {
            assertThat(n.getNodeName()).isNotEqualTo("iTXt");
        }
        BufferedImage back = ImageIO.read(new ByteArrayInputStream(out.toByteArray()));
        assertThat(back.getRGB(0, 0)).isEqualTo(0xFF010203);
        assertThat(back.getRGB(1, 0)).isEqualTo(0x80FFFFFF);
    }

    @Test
    void sizesThatAreNoWholePixelsAreRoundedUp() {
        BufferedImage image = Export.image(10, 7, 1.25, g -> {});
        assertThat(image.getWidth()).isEqualTo(13);
        assertThat(image.getHeight()).isEqualTo(9);
    }

    @Test
    void anSvgKeepsTextAsTextAndPixelsInside() throws Exception {
        var out = new ByteArrayOutputStream();
        Export.svg(
                120,
                80,
                g -> {
                    g.setColor(Color.BLUE);
                    g.drawString("swirl < 1 m/s & more, °C", 10, 20);
                    g.drawImage(Export.image(new int[] {0xFF00FF00}, 1, 1), 5, 5, 20, 20, null);
                },
                out);
        String text = out.toString(StandardCharsets.UTF_8);
        assertThat(text).startsWith("<svg").doesNotContain("<!DOCTYPE").contains("data:image/png;base64");
        var root = DocumentBuilderFactory.newInstance()
                .newDocumentBuilder()
                .parse(new ByteArrayInputStream(out.toByteArray()))
                .getDocumentElement();
        assertThat(root.getAttribute("width")).isEqualTo("120");
        assertThat(root.getAttribute("height")).isEqualTo("80");
        assertThat(root.getElementsByTagName("text").item(0).getTextContent()).isEqualTo("swirl < 1 m/s & more, °C");
    }
}
