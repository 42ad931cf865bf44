package lane.formats.io;

/** Text that is written into XML. */
public final class XmlText {
    private XmlText() {}

    /**
     * For an attribute in double quotes, or between elements: read back as it was. Blanks other than spaces are written by their
     * numbers, since a reader of XML makes spaces of them; what XML has no way to write becomes a replacement character.
     */
    public static String of(String text) {
        var out = new StringBuilder(text.length() + 16);
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            switch (c) {
                case '&' -> out.append("&amp;");
                case '<' -> out.append("&lt;");
                case '>' -> out.append("&gt;");
                case '"' -> out.append("&quot;");
                case '\t', '\n', '\r' -> out.append("&#").append((int) c).append(';');
                default -> out.append(c < ' ' || c == '\uFFFE' || c == '\uFFFF' ? '\uFFFD' : c);
            }
        }
        return out.toString();
    }
}
