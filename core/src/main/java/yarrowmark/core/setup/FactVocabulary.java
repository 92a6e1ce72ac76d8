package yarrowmark.core.setup;

import static yarrowmark.core.setup.FactKey.Type.TEXT;

import java.util.Collection;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * The facts Yarrowmark knows by name. A new fact is one line in {@link KnownFactKeys}. Unknown keys are welcome and kept
 * as text.
 *
 * <p>Tolerances say when two values count as the same circumstances; those of the room are what a lab without climate
 * control can hold, those of clocks and batteries the spread of one device's own reports.
 */
public final class FactVocabulary {
    /** What a device may have several of. */
    private static final Pattern REPEATED =
            Pattern.compile("((?:processor|graphics|storage|display)\\.[a-z0-9_]+)\\.([2-9])");

    private static final Map<String, FactKey> KEYS = KnownFactKeys.all();

    private FactVocabulary() {}

    public static Optional<FactKey> find(String key) {
        FactKey known = KEYS.get(key);
        if (known != null) {
            return Optional.of(known);
        }
        Matcher repeated = REPEATED.matcher(key);
        return repeated.matches()
                ? Optional.ofNullable(KEYS.get(repeated.group(1))).map(k -> k.numbered(repeated.group(2)))
                : Optional.empty();
    }

    /**
     * Of what a device may have several of, the plain key is the one that the tests used, and "graphics.renderer.2" is the
     * next.
     */
    public static String numbered(String key, int n) {
        return n == 1 ? key : key + "." + n;
    }

    /** The entry, or one made for an unknown key: its own name as label, text, in the group Other. */
    public static FactKey entry(String key) {
        return find(key).orElseGet(() -> FactKey.of(key, key, FactGroup.OTHER, TEXT));
    }

    /** Every entry, in the order it is shown. */
    public static Collection<FactKey> all() {
        return Collections.unmodifiableCollection(KEYS.values());
    }

    /** Known keys in the order they are shown, others behind them by name. */
    public static Comparator<String> order() {
        return Comparator.comparingInt(
                        (String k) -> Ranks.OF.getOrDefault(REPEATED.matcher(k).replaceFirst("$1"), Integer.MAX_VALUE))
                .thenComparing(Comparator.naturalOrder());
    }

    private static final class Ranks {
        static final Map<String, Integer> OF = new HashMap<>();

        static {
            KEYS.keySet().forEach(k -> OF.put(k, OF.size()));
        }
    }
}
