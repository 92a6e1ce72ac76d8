package yarrowmark.server.writeup;

import static java.nio.charset.StandardCharsets.UTF_8;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.Base64;
import java.util.Objects;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.springframework.core.io.Resource;
import org.springframework.core.io.support.PathMatchingResourcePatternResolver;
import org.springframework.stereotype.Component;

/** The style of published pages: one sheet, with the lab's accent, and two fonts that come with the program. */
@Component
public class PageStyle {
    static final String LEAF = "#2f6247";
    private static final String LEAF_ON_DARK = "#86c29d";
    private static final Pattern VARIABLE = Pattern.compile("--([a-z0-9-]+): (#[0-9a-f]{6})");
    private static final Pattern USED = Pattern.compile("var\\(--([a-z0-9-]+)\\)");

    private final String sheet;
    private final byte[] icon;
    private final byte[] title = font("fraunces-latin-wght-normal-*.woff2");
    private final byte[] sans = font("source-sans-3-latin-wght-normal-*.woff2");

    PageStyle() {
        try (InputStream css = Objects.requireNonNull(PageStyle.class.getResourceAsStream("page.css"));
                InputStream svg = Objects.requireNonNull(PageStyle.class.getResourceAsStream("icon.svg"))) {
            sheet = new String(css.readAllBytes(), UTF_8);
            icon = svg.readAllBytes();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Empty where the front end was not built; a page then takes the reader's own fonts. */
    private static byte[] font(String name) {
        try {
            Resource[] found = new PathMatchingResourcePatternResolver().getResources("classpath*:web/assets/" + name);
            return found.length == 0 ? new byte[0] : found[0].getContentAsByteArray();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** The small picture of a browser's tab. */
    public byte[] icon() {
        return icon;
    }

    public byte[] font(boolean ofTitles) {
        return ofTitles ? title : sans;
    }

    /** @param accent as #rrggbb */
    public String linked(@Nullable String accent) {
        return filled(accent, "/w/fonts/title.woff2", "/w/fonts/sans.woff2");
    }

    String withFonts(@Nullable String accent) {
        return filled(accent, data(title), data(sans));
    }

    private static String data(byte[] font) {
        return "data:font/woff2;base64," + Base64.getEncoder().encodeToString(font);
    }

    private String filled(@Nullable String accent, String titleFont, String sansFont) {
        return sheet.replace("%TITLE%", titleFont)
                .replace("%SANS%", sansFont)
                .replace("%ACCENT%", accent == null ? LEAF : accent)
                .replace("%ACCENT-DARK%", accent == null ? LEAF_ON_DARK : lighter(accent));
    }

    /** An accent that was chosen for paper is too dark on a dark page. */
    private static String lighter(String accent) {
        int rgb = Integer.parseInt(accent.substring(1), 16);
        StringBuilder light = new StringBuilder("#");
        for (int shift = 16; shift >= 0; shift -= 8) {
            int channel = rgb >> shift & 255;
            light.append(String.format("%02x", channel + (255 - channel) * 55 / 100));
        }
        return light.toString();
    }

    /**
     * A drawing for where the sheet does not go with it: its colours on light paper, and a font by name.
     *
     * @param accent as #rrggbb; null for the usual one
     */
    public String resolved(String svg, @Nullable String accent) {
        java.util.Map<String, String> colours = new java.util.HashMap<>();
        Matcher known = VARIABLE.matcher(sheet.substring(0, sheet.indexOf("@media")));
        while (known.find()) {
            colours.put(known.group(1), known.group(2));
        }
        colours.put("accent", accent == null ? LEAF : accent);
        return USED.matcher(svg.replace("var(--accent, var(--leaf))", "var(--accent)"))
                .replaceAll(m -> colours.getOrDefault(m.group(1), LEAF))
                .replaceFirst("<svg ", "<svg font-family=\"'Source Sans 3', sans-serif\" ");
    }
}
