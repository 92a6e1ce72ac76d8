package yarrowmark.server.shelf;

import org.jspecify.annotations.Nullable;

/**
 * One fact on its way into a configuration.
 *
 * @param value in the base unit
 * @param other what another source says, where it contradicts
 */
public record GivenFact(String key, String value, FactSource source, @Nullable String other) {
    public GivenFact(String key, String value, FactSource source) {
        this(key, value, source, null);
    }
}
