package yarrowmark.server.shelf.configuration;

import java.util.Map;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import yarrowmark.core.setup.FactReader;
import yarrowmark.core.setup.FactVocabulary;
import yarrowmark.server.platform.Problem;

/**
 * One fact on its way into a configuration, whichever way it came.
 *
 * @param value in the base unit, within the bounds of its key
 * @param other what another source says, where it contradicts
 */
public record GivenFact(String key, String value, FactSource source, @Nullable String other) {
    public GivenFact {
        FactReader.unfit(FactVocabulary.entry(key), value).ifPresent(why -> {
            throw Problem.invalid("fact-out-of-bounds", why);
        });
    }

    /** By key, the values alone. */
    static Map<String, String> values(Map<String, GivenFact> facts) {
        Map<String, String> values = new TreeMap<>();
        facts.forEach((key, fact) -> values.put(key, fact.value()));
        return values;
    }

    public GivenFact(String key, String value, FactSource source) {
        this(key, value, source, null);
    }
}
