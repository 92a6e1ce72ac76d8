package yarrowmark.server.platform;

import java.util.HashSet;
import java.util.Map;
import java.util.Set;

/** Records of which one leads to another of its kind, such as one that was merged into another. */
public final class Chain {
    private Chain() {}

    /** Where a chain ends. One that records from elsewhere led in a circle ends where it comes round again. */
    public static <T> T endOf(Map<T, T> next, T first) {
        T last = first;
        Set<T> seen = new HashSet<>(Set.of(first));
        for (T further = next.get(last); further != null && seen.add(further); further = next.get(last)) {
            last = further;
        }
        return last;
    }

    /** Whether following it from here leads back to where one was. */
    public static <T> boolean isCircle(Map<T, T> next, T first) {
        return next.containsKey(endOf(next, first));
    }
}
