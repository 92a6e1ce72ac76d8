package yarrowmark.server.bench;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.stereotype.Component;

/** What devices at the bench say of their sensors, the last few minutes of it: kept while they are at work, in memory alone. */
@Component
class LiveSensors {
    /** Of one device. */
    static final int MOST = 12;

    private static final int KEPT = 60;
    private static final int MOST_SEATS = 200;

    record Now(String name, String unit, double value) {}

    /** @param values the oldest first, at the times at which the device told its progress */
    record Line(String name, String unit, List<Double> values) {}

    private record Kept(String unit, Deque<Double> values) {}

    private final Map<Long, Map<String, Kept>> seats = new ConcurrentHashMap<>();

    void heard(long seat, List<Now> all) {
        if (seats.size() >= MOST_SEATS && !seats.containsKey(seat)) {
            seats.clear();
        }
        Map<String, Kept> lines = seats.computeIfAbsent(seat, s -> new LinkedHashMap<>());
        synchronized (lines) {
            for (Now now : all) {
                if (!Double.isFinite(now.value()) || lines.size() >= MOST && !lines.containsKey(now.name())) {
                    continue;
                }
                Kept kept = lines.computeIfAbsent(now.name(), n -> new Kept(now.unit(), new ArrayDeque<>()));
                kept.values().addLast(now.value());
                if (kept.values().size() > KEPT) {
                    kept.values().removeFirst();
                }
            }
        }
    }

    List<Line> of(long seat) {
        Map<String, Kept> lines = seats.get(seat);
        if (lines == null) {
            return List.of();
        }
        synchronized (lines) {
            List<Line> told = new ArrayList<>();
            lines.forEach((name, kept) -> told.add(new Line(name, kept.unit(), List.copyOf(kept.values()))));
            return told;
        }
    }
}
