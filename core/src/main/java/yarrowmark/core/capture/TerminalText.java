package yarrowmark.core.capture;

import java.util.ArrayList;
import java.util.List;

/** What a terminal shows of a tool's output: without colours and cursor movements, progress lines at their last state. */
public final class TerminalText {
    /** Beyond this, a line is no tool's output any more. */
    static final int LONGEST_LINE = 4_000;

    private TerminalText() {}

    /** The lines as they stand when the tool is done. A carriage return begins a line anew and overwrites it. */
    public static List<String> lines(String pasted) {
        List<String> lines = new ArrayList<>();
        for (String raw : pasted.replace("\r\n", "\n").split("\n", -1)) {
            StringBuilder shown = new StringBuilder();
            for (String written : raw.split("\r", -1)) {
                shown.replace(0, Math.min(written.length(), shown.length()), written);
            }
            lines.add(clean(shown.toString()));
        }
        return lines;
    }

    /** Colours, cursor movements and titles that terminals were told, and every other control character but the tab. */
    static String clean(String line) {
        String text = line.replaceAll("\u001B\\[[0-9;?]*[ -/]*[@-~]", "")
                .replaceAll("\u001B\\][^\u0007\u001B]*(\u0007|\u001B\\\\)?", "")
                .replaceAll("\u001B[@-_()].?", "")
                .replaceAll("[\\p{Cc}&&[^\\t]]|\\p{Cf}", "")
                .replaceAll("\\s+$", "");
        return text.length() <= LONGEST_LINE ? text : text.substring(0, LONGEST_LINE);
    }
}
