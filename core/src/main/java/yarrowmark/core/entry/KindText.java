package yarrowmark.core.entry;

import java.util.List;
import java.util.Locale;
import yarrowmark.core.measure.Kind;

/** Reads what a person types for one run of a metric, whatever kind it is of. */
public final class KindText {
    private static final List<String> PASSED = List.of("pass", "passed", "yes", "ok", "works", "p", "y", "1");
    private static final List<String> FAILED = List.of("fail", "failed", "no", "f", "0");

    /** @param note what was written behind a pass, a fail or a choice; empty where nothing was */
    public record Read(ScoreText.Said said, String note) {}

    private KindText() {}

    /** @param choices of an ordered list, from worst to best; empty for other kinds */
    public static Read read(String typed, Kind kind, String unit, List<String> choices) {
        String text = typed.strip().replaceAll("\\s+", " ");
        return switch (kind) {
            case CHECK -> check(text, unit);
            case CHOICE -> choice(text, unit, choices);
            // The mean rate of frame times can be typed where that is all that is known.
            case CURVE ->
                new Read(
                        ScoreText.read(text, unit) instanceof ScoreText.NoValue none
                                ? none
                                : new ScoreText.NotUnderstood(
                                        "This test gives many points. Paste them beside the sheet, or write n/a and the reason."),
                        "");
            default -> new Read(ScoreText.read(text, unit), "");
        };
    }

    private static Read check(String text, String unit) {
        String[] parts = text.split("[\\s:,;]+", 2);
        String word = parts[0].toLowerCase(Locale.ROOT);
        String note = parts.length > 1 ? parts[1].strip() : "";
        if (text.length() <= 200 && (PASSED.contains(word) || FAILED.contains(word))) {
            return new Read(new ScoreText.Value(PASSED.contains(word) ? 1 : 0, 0), note);
        }
        return new Read(
                ScoreText.read(text, unit) instanceof ScoreText.NoValue none
                        ? none
                        : new ScoreText.NotUnderstood(
                                "This is a check: write pass, fail, or not possible, and a note if you like."),
                "");
    }

    /** The words of a choice, their beginning where that is enough, or their position; the longest words first. */
    private static Read choice(String text, String unit, List<String> choices) {
        String plain = text.toLowerCase(Locale.ROOT);
        for (int i = 0; i < choices.size(); i++) {
            if (plain.equals(choices.get(i).toLowerCase(Locale.ROOT))) {
                return new Read(new ScoreText.Value(i + 1, 0), "");
            }
        }
        List<Integer> begun = java.util.stream.IntStream.range(0, choices.size())
                .filter(i -> !plain.isEmpty()
                        && choices.get(i).toLowerCase(Locale.ROOT).startsWith(plain))
                .boxed()
                .toList();
        if (begun.size() == 1) {
            return new Read(new ScoreText.Value(begun.get(0) + 1, 0), "");
        }
        return new Read(
                ScoreText.read(text, unit) instanceof ScoreText.NoValue none
                        ? none
                        : new ScoreText.NotUnderstood("This is one of: " + String.join(", ", choices) + "."),
                "");
    }
}
