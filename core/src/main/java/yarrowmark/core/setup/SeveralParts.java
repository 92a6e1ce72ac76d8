package yarrowmark.core.setup;

import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.Locale;
import java.util.Map;
import java.util.OptionalInt;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Of what a device has several of, tests use one: its facts have the plain keys, those of the others a number behind
 * them. Which one it is may be known later than the parts themselves.
 */
public final class SeveralParts {
    private static final int MOST = 9;
    /** How much of a part's name must stand in what a device tells, for it to be meant. */
    private static final double ENOUGH = 0.6;

    private static final Pattern WORDS = Pattern.compile("[^\\p{L}\\p{N}]+");

    private SeveralParts() {}

    /**
     * The same facts after part n of a kind was found to be the one that the tests used: it and the plain one change
     * places, with everything known of either.
     *
     * @param kind such as "graphics"
     * @param n    from 2
     */
    public static <T> Map<String, T> exchanged(Map<String, T> facts, String kind, int n) {
        Pattern ofOne = Pattern.compile(Pattern.quote(kind) + "\\.([a-z0-9_]+)(\\." + n + ")?");
        Map<String, T> after = new LinkedHashMap<>();
        facts.forEach((key, value) -> {
            Matcher m = ofOne.matcher(key);
            String elsewhere =
                    m.matches() ? FactVocabulary.numbered(kind + "." + m.group(1), m.group(2) == null ? n : 1) : key;
            after.put(elsewhere, value);
        });
        return after;
    }

    /**
     * Which part a name means that a device tells of the one it uses, such as a browser's name of what it draws with.
     *
     * @param key  what parts of the kind are called by, such as "graphics.renderer"
     * @param told longer than the part's name as a rule: with the names of drivers and interfaces
     * @return 1 for the plain one; empty where there are not several, or none or more than one fits best
     */
    public static OptionalInt meant(Map<String, String> facts, String key, String told) {
        Set<String> words = words(told);
        Map<Integer, Double> fits = new HashMap<>();
        for (int n = 1; n <= MOST; n++) {
            String name = facts.get(FactVocabulary.numbered(key, n));
            if (name != null) {
                Set<String> own = words(name);
                fits.put(
                        n,
                        own.isEmpty()
                                ? 0
                                : (double) own.stream().filter(words::contains).count() / own.size());
            }
        }
        double best = fits.values().stream().mapToDouble(f -> f).max().orElse(0);
        if (fits.size() < 2
                || best < ENOUGH
                || fits.values().stream().filter(f -> f == best).count() > 1) {
            return OptionalInt.empty();
        }
        return fits.entrySet().stream()
                .filter(e -> e.getValue() == best)
                .mapToInt(Map.Entry::getKey)
                .findFirst();
    }

    private static Set<String> words(String text) {
        Set<String> words = new LinkedHashSet<>();
        for (String word : WORDS.split(text.toLowerCase(Locale.ROOT))) {
            if (!word.isEmpty()) {
                words.add(word);
            }
        }
        return words;
    }
}
