package yarrowmark.server.platform.records;

import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/** Records of which one leads to another of its kind, such as one that was merged into another. */
public final class Chain {
    private Chain() {}

    /** Where a chain ends. One that records from elsewhere led in a circle ends where it comes round again. */
    public static <T> T endOf(Map<T, T> next, T first) {
        T last = first;
        Set<T> seen = new LinkedHashSet<>(Set.of(first));
        for (T further = next.get(last); further != null && seen.add(further); further = next.get(last)) {
            last = further;
        }
        return last;
    }

    /** Where each ends that leads further; however long the chains are, each link of them is followed once. */
    public static <T> Map<T, T> ends(Map<T, T> next) {
        Map<T, T> ends = new HashMap<>();
        for (T first : next.keySet()) {
            Set<T> way = new LinkedHashSet<>();
            T last = first;
            while (!ends.containsKey(last) && next.containsKey(last) && way.add(last)) {
                last = next.get(last);
            }
            T end = ends.getOrDefault(last, last);
            way.forEach(one -> ends.put(one, end));
        }
        return ends;
    }

    /** One that a chain comes round to again. */
    public static <T> Optional<T> circle(Map<T, T> next) {
        return ends(next).values().stream().filter(next::containsKey).findFirst();
    }
}
