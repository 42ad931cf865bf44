package lane.formats.table;

import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import lane.base.LaneException;

/**
 * The letters of a table's file.
 *
 * @param text with line feeds alone between lines
 * @param encoding as found or as said
 */
record TableText(String text, String encoding) {
    static TableText of(byte[] bytes, String said) {
        String encoding = said.isBlank() ? encoding(bytes) : said;
        return new TableText(decode(bytes, encoding), encoding);
    }

    /** Whether among the first characters there are more that nobody writes than slip into a log. */
    static boolean noise(String text) {
        int looked = Math.min(text.length(), 4096);
        int odd = 0;
        for (int i = 0; i < looked; i++) {
            char c = text.charAt(i);
            odd += c < ' ' && c != '\t' && c != '\n' && c != '\f' && c != '\u001a' || c == '\uFFFD' ? 1 : 0;
        }
        return odd > 8 && odd > looked / 100;
    }

    private static boolean marked(byte[] bytes) {
        return bytes.length >= 2 && (bytes[0] & 0xff) + (bytes[1] & 0xff) == 0xff + 0xfe;
    }

    /** Whether there are letters of seven bits alone, which are the same in all encodings of bytes. */
    private static boolean plain(byte[] bytes) {
        for (byte b : bytes) {
            if (b < 0) {
                return false;
            }
        }
        return true;
    }

    private static String encoding(byte[] bytes) {
        if (marked(bytes)
                || bytes.length >= 4
                        && bytes.length % 2 == 0
                        && (bytes[1] == 0 && bytes[3] == 0 || bytes[0] == 0 && bytes[2] == 0)) {
            return "UTF-16";
        }
        if (plain(bytes)) {
            return "UTF-8";
        }
        try {
            StandardCharsets.UTF_8.newDecoder().decode(ByteBuffer.wrap(bytes));
            return "UTF-8";
        } catch (CharacterCodingException e) {
            return "Latin-1";
        }
    }

    private static String decode(byte[] bytes, String encoding) {
        Charset set =
                switch (encoding) {
                    case "UTF-8" -> StandardCharsets.UTF_8;
                    // What most spreadsheets call by this name: it has a euro and quotation marks where Latin-1 has
                    // nothing.
                    case "Latin-1" -> Charset.forName("windows-1252");
                    case "UTF-16" ->
                        marked(bytes)
                                ? StandardCharsets.UTF_16
                                : bytes.length > 1 && bytes[1] == 0
                                        ? StandardCharsets.UTF_16LE
                                        : StandardCharsets.UTF_16BE;
                    default ->
                        throw new LaneException("The encoding \"" + encoding
                                + "\" of a table is not known; give UTF-8, UTF-16 or Latin-1.");
                };
        String text = new String(bytes, set);
        text = text.startsWith("\uFEFF") ? text.substring(1) : text;
        return text.indexOf('\r') < 0 ? text : text.replace("\r\n", "\n").replace('\r', '\n');
    }
}
