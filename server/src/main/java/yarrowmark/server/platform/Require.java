package yarrowmark.server.platform;

import java.util.Map;
import org.jspecify.annotations.Nullable;

/** What has to be there, because what led here says so. Where it is not, a record or a line of code is wrong. */
public final class Require {
    private Require() {}

    /** The value of a key that the map was made with. */
    public static <K, V> V require(Map<K, ? extends @Nullable V> all, @Nullable K key) {
        V value = key == null ? null : all.get(key);
        if (value == null) {
            throw new IllegalStateException("nothing is known of " + key);
        }
        return value;
    }

    /** A value that is there where it is asked for. */
    public static <V> V require(@Nullable V value) {
        if (value == null) {
            throw new IllegalStateException("a value that must be there is missing");
        }
        return value;
    }
}
