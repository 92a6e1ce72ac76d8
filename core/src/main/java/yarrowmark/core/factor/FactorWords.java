package yarrowmark.core.factor;

import java.util.Locale;

/** What two factors do, as sentences. Whether something is told depends on its 95 % interval. */
public final class FactorWords {
    private FactorWords() {}

    /** The effect of going from one level to another, on the mean of the other factor's levels. */
    public static String effect(TwoFactors.Effect effect, String from, String to) {
        String size = percent(effect.ratio());
        return switch (told(effect)) {
            case HIGHER -> to + " is " + size + " better than " + from + interval(effect) + ".";
            case LOWER -> to + " is " + size + " worse than " + from + interval(effect) + ".";
            case OPEN -> "Whether " + to + " is better than " + from + " is too close to call" + interval(effect) + ".";
        };
    }

    /**
     * How much the second factor's gain depends on the first.
     *
     * @param from first level of the second factor. @param to its second level
     * @param on   second level of the first factor. @param than its first level
     */
    public static String interaction(TwoFactors.Effect interaction, String from, String to, String on, String than) {
        String gain = "the gain from " + from + " to " + to;
        return switch (told(interaction)) {
            case HIGHER ->
                capital(gain) + " is " + percent(interaction.ratio()) + " larger on " + on + " than on " + than
                        + interval(interaction) + ".";
            case LOWER ->
                capital(gain) + " is " + percent(interaction.ratio()) + " smaller on " + on + " than on " + than
                        + interval(interaction) + ".";
            case OPEN ->
                "Whether " + gain + " differs between " + on + " and " + than + " is too close to call"
                        + interval(interaction) + ".";
        };
    }

    /**
     * An effect that turns: what is a gain on one level of the other factor is a loss on its other one.
     *
     * @param on   first level of the other factor. @param than its second level
     */
    public static String turned(TwoFactors.Alone alone, String from, String to, String on, String than) {
        return "From " + from + " to " + to + ", " + gainOrLoss(alone.onFirst()) + " on " + on + " becomes "
                + gainOrLoss(alone.onSecond()) + " on " + than + ".";
    }

    private static String gainOrLoss(TwoFactors.Effect e) {
        return (e.ratio() > 1 ? "a gain of " : "a loss of ") + percent(e.ratio());
    }

    private enum Told {
        HIGHER,
        LOWER,
        OPEN
    }

    private static Told told(TwoFactors.Effect e) {
        return e.interval().low() <= 1 && e.interval().high() >= 1
                ? Told.OPEN
                : e.ratio() > 1 ? Told.HIGHER : Told.LOWER;
    }

    private static String percent(double ratio) {
        return String.format(Locale.ROOT, "%.1f %%", Math.abs(100 * (ratio - 1)));
    }

    private static String interval(TwoFactors.Effect e) {
        return String.format(
                Locale.ROOT,
                ": %.3f times, 95 %% between %.3f and %.3f",
                e.ratio(),
                e.interval().low(),
                e.interval().high());
    }

    private static String capital(String words) {
        return words.substring(0, 1).toUpperCase(Locale.ROOT) + words.substring(1);
    }
}
