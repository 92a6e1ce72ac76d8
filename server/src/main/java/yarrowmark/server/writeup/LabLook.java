package yarrowmark.server.writeup;

import java.net.URI;
import java.net.URISyntaxException;
import java.util.Base64;
import java.util.Locale;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.server.files.Files;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.history.ChangeLog;
import yarrowmark.server.platform.records.Settings;

/** How the lab's pages and figures look: one accent, a mark, and the licence of their data. The name is the lab's own. */
@Service
public class LabLook {
    private static final String ACCENT = "look.accent";
    private static final String MARK = "look.mark";
    private static final String LICENCE = "look.licence";
    private static final String ADDRESS = "look.address";
    private static final String NAME = "lab.name";
    private static final Pattern COLOUR = Pattern.compile("#[0-9a-f]{6}");

    /** Of text beside its paper, WCAG 2.2 AA for words of any size. */
    private static final double LEAST_CONTRAST = 4.5;

    /** The paper of a page and of a dark one. */
    private static final int[] PAPER = {0xfa, 0xf8, 0xf1};

    private static final int MOST_NOTED = 300;
    private static final int LONGEST_ADDRESS = 200;
    private static final int LONGEST_MARK = 60_000;
    /** How a mark begins that is a picture and no drawing. */
    private static final String PNG = "data:image/png;base64,";

    /**
     * @param accent  as #rrggbb
     * @param mark    as SVG, or as the address of a PNG that holds all of it
     * @param address where readers find the front page
     */
    public record LookNow(
            String name,
            @Nullable String accent,
            @Nullable String mark,
            @Nullable String licence,
            @Nullable String address) {}

    private final Settings settings;
    private final ChangeLog changes;

    LabLook(Settings settings, ChangeLog changes) {
        this.settings = settings;
        this.changes = changes;
    }

    LookNow now() {
        return new LookNow(
                settings.get(NAME).orElse("Your lab"), given(ACCENT), given(MARK), given(LICENCE), given(ADDRESS));
    }

    private @Nullable String given(String name) {
        return settings.get(name).filter(v -> !v.isEmpty()).orElse(null);
    }

    /** @throws Problem where the accent cannot be read on paper, or the mark is no drawing */
    @Transactional
    public LookNow change(
            @Nullable String accent,
            @Nullable String mark,
            @Nullable String licence,
            @Nullable String address,
            String person) {
        String colour = accent == null ? "" : accent.strip().toLowerCase(Locale.ROOT);
        if (!colour.isEmpty()) {
            colour(colour);
            double contrast = contrast(colour);
            if (contrast < LEAST_CONTRAST) {
                throw Problem.invalid(
                        "too-pale",
                        String.format(
                                Locale.ROOT,
                                "Words in this colour cannot be read well on paper: the contrast is %.1f, and 4.5 is the least. Take a darker one.",
                                contrast));
            }
        }
        String drawing = mark == null || mark.isBlank() ? "" : cleaned(mark);
        if (drawing.length() > LONGEST_MARK) {
            throw Problem.invalid(
                    "mark-too-long",
                    "This mark has too much in it (" + drawing.length() / 1000 + " kB once it is drawn anew, and "
                            + LONGEST_MARK / 1000 + " are the most). A mark is a few shapes.");
        }
        String found = address == null || address.isBlank() ? "" : address(address.strip());
        keep(ADDRESS, found, person);
        keep(ACCENT, colour, person);
        keep(MARK, drawing, person);
        keep(LICENCE, licence == null ? "" : licence.strip(), person);
        return now();
    }

    /** What came from elsewhere is judged like what is chosen here. */
    @Transactional
    public void cleanUp() {
        String accent = given(ACCENT);
        String mark = given(MARK);
        if (accent != null) {
            settings.put(ACCENT, colour(accent));
        }
        if (mark != null) {
            settings.put(MARK, cleaned(mark));
        }
        String address = given(ADDRESS);
        if (address != null) {
            settings.put(ADDRESS, address(address));
        }
    }

    /** @return without a slash at its end. @throws Problem where it leads to no page */
    static String address(String given) {
        try {
            URI uri = new URI(given);
            boolean web = "http".equals(uri.getScheme()) || "https".equals(uri.getScheme());
            if (web
                    && uri.getHost() != null
                    && uri.getUserInfo() == null
                    && uri.getQuery() == null
                    && uri.getFragment() == null
                    && given.length() <= LONGEST_ADDRESS) {
                return given.replaceAll("/+$", "");
            }
        } catch (URISyntaxException e) {
            // Said below.
        }
        throw Problem.invalid(
                "not-an-address",
                "The public address is where readers find the front page, such as https://reviews.example/w. It has no ? and no #.");
    }

    /** @throws Problem where it is none */
    static String colour(String accent) {
        if (!COLOUR.matcher(accent).matches()) {
            throw Problem.invalid("not-a-colour", "A colour is # and six digits, such as #2f6247.");
        }
        return accent;
    }

    /** @throws Problem where it is no drawing and no picture */
    static String cleaned(String mark) {
        return mark.startsWith(PNG) ? picture(mark) : SafeSvg.cleaned(mark);
    }

    private static String picture(String mark) {
        byte[] bytes;
        try {
            bytes = Base64.getMimeDecoder().decode(mark.substring(PNG.length()));
        } catch (IllegalArgumentException e) {
            throw Problem.invalid("not-a-mark", "This picture did not arrive whole. Choose it again.");
        }
        return PNG + Base64.getEncoder().encodeToString(Files.mark(bytes));
    }

    /** The mark as a page has it. */
    public static String html(String mark) {
        return mark.startsWith(PNG) ? "<img alt=\"\" src=\"" + EditionPage.escaped(mark) + "\">" : mark;
    }

    private void keep(String name, String value, String person) {
        String before = settings.get(name).orElse("");
        if (!before.equals(value)) {
            settings.put(name, value);
            changes.note(person, "look", 0, name, brief(before), brief(value));
        }
    }

    /** A mark is too long for a line of what changed. */
    private static String brief(String value) {
        return value.length() <= MOST_NOTED ? value : value.substring(0, MOST_NOTED) + "…";
    }

    static double contrast(String colour) {
        int rgb = Integer.parseInt(colour.substring(1), 16);
        double one = luminance(rgb >> 16 & 255, rgb >> 8 & 255, rgb & 255);
        double paper = luminance(PAPER[0], PAPER[1], PAPER[2]);
        return (Math.max(one, paper) + 0.05) / (Math.min(one, paper) + 0.05);
    }

    private static double luminance(int red, int green, int blue) {
        return 0.2126 * linear(red) + 0.7152 * linear(green) + 0.0722 * linear(blue);
    }

    private static double linear(int channel) {
        double c = channel / 255.0;
        return c <= 0.04045 ? c / 12.92 : Math.pow((c + 0.055) / 1.055, 2.4);
    }
}
