package yarrowmark.server.site;

import java.awt.Font;
import java.awt.FontFormatException;
import java.awt.GraphicsEnvironment;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import org.springframework.core.io.Resource;
import org.springframework.core.io.support.PathMatchingResourcePatternResolver;

/** The two families of our pages for what Java draws. Where the front end was not built, the machine's own font. */
final class PictureFonts {
    private final Font title = read("fraunces-latin-500-normal.woff", Font.SERIF);
    private final Font sans = read("source-sans-3-latin-400-normal.woff", Font.SANS_SERIF);

    PictureFonts() {
        // Drawings ask for the family by its name.
        GraphicsEnvironment environment = GraphicsEnvironment.getLocalGraphicsEnvironment();
        environment.registerFont(sans);
        environment.registerFont(read("source-sans-3-latin-700-normal.woff", Font.SANS_SERIF));
    }

    /** Ours has Latin letters alone: other words get whatever the machine writes them with. */
    Font title(String words, float size) {
        return of(title, Font.SERIF, words, size);
    }

    Font sans(String words, float size) {
        return of(sans, Font.SANS_SERIF, words, size);
    }

    private static Font of(Font ours, String otherwise, String words, float size) {
        return (ours.canDisplayUpTo(words) < 0 ? ours : new Font(otherwise, Font.PLAIN, 1)).deriveFont(size);
    }

    private static Font read(String name, String otherwise) {
        try {
            Resource[] found = new PathMatchingResourcePatternResolver().getResources("classpath*:web/assets/" + name);
            return found.length == 0
                    ? new Font(otherwise, Font.PLAIN, 1)
                    : Font.createFont(
                            Font.TRUETYPE_FONT,
                            new ByteArrayInputStream(Woff.unwrapped(found[0].getContentAsByteArray())));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (FontFormatException e) {
            throw new IllegalStateException(name + " is no font", e);
        }
    }
}
