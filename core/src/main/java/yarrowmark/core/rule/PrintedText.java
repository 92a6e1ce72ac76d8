package yarrowmark.core.rule;

import java.nio.charset.StandardCharsets;

/**
 * What a program printed, as text that can be kept: bytes that are no UTF-8, and control characters that belong to no text,
 * stand as U+FFFD. Colours, backspaces and new pages, which terminals are told in what they print, stay.
 *
 * @param replaced how many characters stand for something else
 */
public record PrintedText(String text, int replaced) {
    private static final char REPLACEMENT = '\ufffd';
    private static final String KEPT = "\n\r\t\f\b\u001b";

    public static PrintedText of(byte[] printed) {
        String decoded = new String(printed, StandardCharsets.UTF_8);
        int odd = (int) decoded.chars().filter(c -> c == REPLACEMENT).count();
        PrintedText plain = of(decoded);
        return new PrintedText(plain.text(), plain.replaced() + odd);
    }

    public static PrintedText of(String printed) {
        StringBuilder text = new StringBuilder(printed.length());
        int replaced = 0;
        for (int i = 0; i < printed.length(); i++) {
            char c = printed.charAt(i);
            boolean odd = c < ' ' && KEPT.indexOf(c) < 0;
            replaced += odd ? 1 : 0;
            text.append(odd ? REPLACEMENT : c);
        }
        return new PrintedText(text.toString(), replaced);
    }

    /** With a line before it that says how much was replaced, where anything was. */
    public String noted() {
        return replaced == 0
                ? text
                : "[" + replaced + (replaced == 1 ? " character that is" : " characters that are") + " no text "
                        + (replaced == 1 ? "stands" : "stand") + " as " + REPLACEMENT + "]\n" + text;
    }
}
