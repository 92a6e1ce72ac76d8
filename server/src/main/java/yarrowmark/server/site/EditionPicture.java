package yarrowmark.server.site;

import com.github.weisj.jsvg.SVGDocument;
import com.github.weisj.jsvg.parser.LoaderContext;
import com.github.weisj.jsvg.parser.SVGLoader;
import com.github.weisj.jsvg.view.ViewBox;
import java.awt.Color;
import java.awt.Component;
import java.awt.Font;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.Shape;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** What stands for an edition where only a picture can: its photo or its first figure, alone or beside its title. */
final class EditionPicture {
    private static final Color PAPER = new Color(0xfaf8f1);
    private static final Color INK = new Color(0x1d2a24);
    private static final Color INK_2 = new Color(0x4b594f);
    private static final Color LEAF = new Color(0x2f6247);
    private static final int MOST_TITLE_LINES = 4;
    private static final int MOST_SUBTITLE_LINES = 3;

    /** @param svg the figure, its colours as they are drawn; null where a photo leads or there is none */
    record Of(
            String title,
            @Nullable String subtitle,
            String lab,
            @Nullable String accent,
            @Nullable BufferedImage photo,
            @Nullable String svg) {}

    private final PictureFonts fonts;

    EditionPicture(PictureFonts fonts) {
        this.fonts = fonts;
    }

    /** Photo or figure, so large. */
    BufferedImage alone(Of of, int width, int height) {
        BufferedImage image = new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB);
        Graphics2D g = begun(image, width, height);
        if (of.photo() != null) {
            cover(g, of.photo(), 0, 0, width, height);
        } else if (of.svg() != null) {
            int margin = width / 20;
            figure(g, of.svg(), margin, margin, width - 2 * margin, height - margin);
        } else {
            g.setColor(accent(of));
            g.fillRect(0, 0, width, height);
            g.setColor(PAPER);
            words(g, List.of(of.lab()), fonts.title(of.lab(), height / 9f), width / 16, height / 2, 0);
        }
        g.dispose();
        return image;
    }

    /** Beside its title, for a link that is shared. */
    BufferedImage card(Of of, int width, int height) {
        BufferedImage image = new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB);
        Graphics2D g = begun(image, width, height);
        boolean alone = of.photo() == null && of.svg() == null;
        int margin = width / 20;
        int split = alone ? width : width * 48 / 100;
        g.setColor(accent(of));
        g.fillRect(0, 0, width / 80, height);
        int room = split - margin - (alone ? margin : margin / 2);
        g.setColor(INK_2);
        words(
                g,
                broken(g, of.lab(), fonts.sans(of.lab(), 26), room, 1),
                fonts.sans(of.lab(), 26),
                margin,
                margin + 26,
                0);
        Font large = fonts.title(of.title(), of.title().length() > 60 ? 46 : 56);
        List<String> title = broken(g, of.title(), large, room, MOST_TITLE_LINES);
        g.setColor(INK);
        int below = words(g, title, large, margin, height * 3 / 10 + large.getSize() / 2, large.getSize() * 6 / 5);
        if (of.subtitle() != null) {
            g.setColor(INK_2);
            Font small = fonts.sans(of.subtitle(), 30);
            words(g, broken(g, of.subtitle(), small, room, MOST_SUBTITLE_LINES), small, margin, below + 16, 40);
        }
        if (of.photo() != null) {
            cover(g, of.photo(), split, 0, width - split, height);
        } else if (of.svg() != null) {
            figure(g, of.svg(), split, margin, width - split - margin / 2, height - margin);
        }
        g.dispose();
        return image;
    }

    private static Graphics2D begun(BufferedImage image, int width, int height) {
        Graphics2D g = image.createGraphics();
        g.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
        g.setRenderingHint(RenderingHints.KEY_TEXT_ANTIALIASING, RenderingHints.VALUE_TEXT_ANTIALIAS_ON);
        g.setRenderingHint(RenderingHints.KEY_FRACTIONALMETRICS, RenderingHints.VALUE_FRACTIONALMETRICS_ON);
        g.setRenderingHint(RenderingHints.KEY_INTERPOLATION, RenderingHints.VALUE_INTERPOLATION_BICUBIC);
        g.setColor(PAPER);
        g.fillRect(0, 0, width, height);
        return g;
    }

    private static Color accent(Of of) {
        return of.accent() == null ? LEAF : Color.decode(of.accent());
    }

    /** Fills the place; what is over stays out at the sides, as much on one as on the other. */
    private static void cover(Graphics2D g, BufferedImage photo, int x, int y, int width, int height) {
        double scale = Math.max((double) width / photo.getWidth(), (double) height / photo.getHeight());
        int w = (int) Math.ceil(photo.getWidth() * scale);
        int h = (int) Math.ceil(photo.getHeight() * scale);
        Shape before = g.getClip();
        g.clipRect(x, y, width, height);
        g.drawImage(photo, x + (width - w) / 2, y + (height - h) / 2, w, h, null);
        g.setClip(before);
    }

    /** As wide as the place; a long one is cut below, where it only goes on. */
    private static void figure(Graphics2D g, String svg, int x, int y, int width, int height) {
        SVGDocument document = new SVGLoader()
                .load(
                        new ByteArrayInputStream(svg.getBytes(StandardCharsets.UTF_8)),
                        null,
                        LoaderContext.createDefault());
        if (document == null) {
            return;
        }
        double ratio = document.size().height / document.size().width;
        Graphics2D of = (Graphics2D) g.create(x, y, width, height);
        document.render((Component) null, of, new ViewBox(0, 0, width, (float) (width * ratio)));
        of.dispose();
    }

    /** @return where the next line may stand */
    private static int words(Graphics2D g, List<String> lines, Font font, int x, int y, int step) {
        g.setFont(font);
        int at = y;
        for (String line : lines) {
            g.drawString(line, x, at);
            at += step;
        }
        return at;
    }

    /** Words in lines that fit; what does not is cut with "…". */
    private static List<String> broken(Graphics2D g, String text, Font font, int room, int most) {
        List<String> lines = new ArrayList<>();
        StringBuilder line = new StringBuilder();
        for (String word : text.strip().split("\\s+")) {
            String longer = line.isEmpty() ? word : line + " " + word;
            if (!line.isEmpty() && width(g, longer, font) > room) {
                lines.add(line.toString());
                line = new StringBuilder(word);
            } else {
                line = new StringBuilder(longer);
            }
        }
        lines.add(line.toString());
        boolean more = lines.size() > most;
        List<String> shown = new ArrayList<>(lines.subList(0, Math.min(most, lines.size())));
        for (int i = 0; i < shown.size(); i++) {
            boolean last = more && i == shown.size() - 1;
            String whole = last ? shown.get(i) + "…" : shown.get(i);
            while (whole.length() > 2 && width(g, whole, font) > room) {
                whole = whole.substring(0, whole.offsetByCodePoints(whole.length(), whole.endsWith("…") ? -2 : -1))
                        + "…";
            }
            shown.set(i, whole);
        }
        return shown;
    }

    private static double width(Graphics2D g, String text, Font font) {
        return g.getFontMetrics(font).getStringBounds(text, g).getWidth();
    }
}
