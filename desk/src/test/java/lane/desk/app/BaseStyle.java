package lane.desk.app;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * Makes {@code base.css} from a kept theme: the rules for the controls that the window has, with the colours that the
 * window's own tokens do not set put in as they are. Every node that is styled looks at all rules for its class and looks
 * every named colour up through its parents, so a fifth of the rules make the window that much quicker.
 */
final class BaseStyle {
    private static final Set<String> CONTROLS = Set.of(
            ("root label button toggle-button text-field text-area text-input combo-box combo-box-base combo-box-popup "
                            + "check-box menu-button menu menu-item context-menu check-menu-item radio-menu-item "
                            + "scroll-pane scroll-bar tooltip list-view list-cell separator dialog-pane arrow arrow-button "
                            + "mnemonic-underline text box mark viewport corner content thumb track track-background "
                            + "increment-button decrement-button increment-arrow decrement-arrow left-container "
                            + "right-container graphic-container virtual-flow sheet header-panel button-bar container "
                            + "cell indexed-cell line horizontal vertical ikonli-font-icon menu-up-arrow menu-down-arrow "
                            + "clipped-container scroll-arrow radio dot custom-menu-item slider")
                    .split(" "));
    private static final Pattern STATES = Pattern.compile(":(accent|success|warning|danger)\\b");
    private static final Pattern RULE = Pattern.compile("([^{}]+)\\{([^{}]*)}");
    private static final Pattern CLASS = Pattern.compile("\\.([A-Za-z][\\w-]*)");
    private static final Pattern COLOUR = Pattern.compile("-color-[\\w-]+");

    /** What the window's own style says of the theme's colours. */
    private static final Map<String, String> TOKENS = Map.ofEntries(
            Map.entry("-color-accent-emphasis", "-teal"),
            Map.entry("-color-accent-fg", "-teal"),
            Map.entry("-color-accent-subtle", "-teal-wash"),
            Map.entry("-color-accent-6", "-teal"),
            Map.entry("-color-bg-default", "-sheet"),
            Map.entry("-color-bg-overlay", "-sheet"),
            Map.entry("-color-bg-subtle", "-paper"),
            Map.entry("-color-bg-inset", "-paper"),
            Map.entry("-color-fg-default", "-ink"),
            Map.entry("-color-fg-muted", "-muted"),
            Map.entry("-color-fg-subtle", "-muted"),
            Map.entry("-color-fg-emphasis", "-on-teal"),
            Map.entry("-color-border-default", "-line"),
            Map.entry("-color-border-muted", "-hair"),
            Map.entry("-color-border-subtle", "-hair"),
            Map.entry("-color-neutral-emphasis", "-muted"),
            Map.entry("-color-base-0", "-paper"),
            Map.entry("-color-base-1", "-sunk"),
            Map.entry("-color-base-2", "-hair"),
            Map.entry("-color-base-5", "-muted"),
            Map.entry("-color-light", "-on-teal"),
            Map.entry("-color-shadow-default", "rgba(0, 0, 0, 0.25)"));

    private BaseStyle() {}

    /** @param own the window's style, whose light tokens hold where it is not worn, as in a dialog */
    static String of(String theme, String own) {
        String plain =
                Pattern.compile("/\\*.*?\\*/", Pattern.DOTALL).matcher(theme).replaceAll("");
        Map<String, String> colours = new LinkedHashMap<>();
        List<String> rules = new ArrayList<>();
        Matcher rule = RULE.matcher(plain);
        while (rule.find()) {
            List<String> selectors = Stream.of(rule.group(1).split(","))
                    .map(s -> s.strip().replaceAll("\\s+", " "))
                    .filter(BaseStyle::used)
                    .toList();
            List<String> lines = new ArrayList<>();
            for (String line : rule.group(2).split(";")) {
                int colon = line.indexOf(':');
                if (colon < 0) {
                    continue;
                }
                String name = line.substring(0, colon).strip();
                String value = line.substring(colon + 1).strip().replaceAll("\\s+", " ");
                if (selectors.equals(List.of(".root")) && name.startsWith("-color-")) {
                    colours.put(name, value);
                } else {
                    lines.add("    " + name + ": " + value + ";\n");
                }
            }
            if (!selectors.isEmpty() && !lines.isEmpty()) {
                rules.add(String.join(",\n", selectors) + " {\n" + String.join("", lines) + "}\n");
            }
        }
        colours.putAll(TOKENS);
        String body = String.join("", rules);
        for (int depth = 0; depth < 5; depth++) {
            body = COLOUR.matcher(body)
                    .replaceAll(m -> Matcher.quoteReplacement(colours.getOrDefault(m.group(), m.group())));
        }
        return "/* Made by BaseStyle from the light theme of AtlantaFX 2.1.0: MIT licence, (c) 2022 mkpaz. Not to be edited. */\n"
                + tokens(own) + body;
    }

    private static String tokens(String own) {
        String root = own.substring(own.indexOf('{') + 1, own.indexOf('}'));
        return Pattern.compile("-[a-z-]+: #[0-9A-Fa-f]{6};")
                .matcher(root)
                .results()
                .map(m -> "    " + m.group() + "\n")
                .collect(Collectors.joining("", ".root {\n", "}\n"));
    }

    private static boolean used(String selector) {
        return !STATES.matcher(selector).find()
                && CLASS.matcher(selector).results().map(m -> m.group(1)).allMatch(CONTROLS::contains);
    }

    static String read(String resource) throws IOException {
        try (InputStream in = LaneApp.class.getResourceAsStream(resource)) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
    }
}
