package yarrowmark.server.standing;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.IntPredicate;
import org.jspecify.annotations.Nullable;
import yarrowmark.core.standing.Place;
import yarrowmark.core.standing.Standing;

/**
 * Places where a display holds some of the values: a held one is at least as good as it reads, so it may be first, and
 * everybody above it may be one lower for it.
 */
final class CensoredPlaces {
    private final Map<Integer, Place> places = new HashMap<>();

    CensoredPlaces(Ranked ranked) {
        this(ranked.standing(), row -> ranked.held().contains(ranked.rows().get(row)));
    }

    /** @param isHeld by row of the standing */
    CensoredPlaces(Standing standing, IntPredicate isHeld) {
        List<Standing.Entry> placed =
                standing.entries().stream().filter(e -> e.place().isPresent()).toList();
        int heldBelow = 0;
        for (int i = placed.size() - 1; i >= 0; i--) {
            Standing.Entry e = placed.get(i);
            Place place = e.place().orElseThrow();
            boolean held = isHeld.test(e.row());
            places.put(
                    e.row(),
                    new Place(
                            place.order(),
                            held ? 1 : place.best(),
                            Math.min(placed.size(), Math.max(place.worst(), i + 1 + heldBelow))));
            heldBelow += held ? 1 : 0;
        }
    }

    @Nullable
    Integer order(Standing.Entry e) {
        Place place = places.get(e.row());
        return place == null ? null : place.order();
    }

    @Nullable
    Integer best(Standing.Entry e) {
        Place place = places.get(e.row());
        return place == null ? null : place.best();
    }

    @Nullable
    Integer worst(Standing.Entry e) {
        Place place = places.get(e.row());
        return place == null ? null : place.worst();
    }
}
