package yarrowmark.core.entry;

import java.util.Arrays;
import java.util.List;

/**
 * Several numbers of one run in one text, such as an average and a low: "57.8 / 17.1", "57.8; –; 24.3". A slash parts only
 * before what begins like a number or like none, because units have slashes too: "57.8 MB/s".
 */
public final class SeveralNumbers {
    private static final String PARTING = "\\s*;\\s*|\\s*/\\s*(?=[-−+.,\\d–—])|\\s+/\\s+";
    private static final List<String> NONE = List.of("", "-", "–", "—", "−");

    private SeveralNumbers() {}

    /** @return the parts in order; empty texts for those that were left out, with a dash or nothing */
    public static List<String> parts(String typed) {
        return Arrays.stream(typed.strip().split(PARTING, -1))
                .map(String::strip)
                .map(p -> NONE.contains(p) ? "" : p)
                .toList();
    }
}
