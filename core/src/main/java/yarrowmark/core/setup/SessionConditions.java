package yarrowmark.core.setup;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;

/**
 * Under which conditions a session ran, as far as they are no facts of the configuration.
 *
 * @param roomTemperature in °C
 */
public record SessionConditions(
        Optional<Boolean> onMains, Optional<Boolean> recording, OptionalDouble roomTemperature, Instant startedAt) {
    private static final double ROOM_TOLERANCE = 1.5;

    /** What differs between the sessions of two configurations. */
    public enum Matter {
        POWER,
        RECORDING,
        ROOM,
        DAYS
    }

    /**
     * @param base  how it was on the base, in words
     * @param other how it was on the other
     * @param disturbs whether it can move a score: days between sessions alone do not
     */
    public record Difference(Matter matter, String base, String other, boolean disturbs) {}

    /** What is not known of either side is no difference. Rooms within 1.5 °C of each other are the same. */
    public static List<Difference> between(List<SessionConditions> base, List<SessionConditions> other) {
        List<Difference> found = new ArrayList<>();
        words(base, SessionConditions::onMains, "on mains", "on battery")
                .ifPresent(b -> words(other, SessionConditions::onMains, "on mains", "on battery")
                        .filter(o -> !o.equals(b))
                        .ifPresent(o -> found.add(new Difference(Matter.POWER, b, o, true))));
        words(base, SessionConditions::recording, "recording the screen", "not recording")
                .ifPresent(b -> words(other, SessionConditions::recording, "recording the screen", "not recording")
                        .filter(o -> !o.equals(b))
                        .ifPresent(o -> found.add(new Difference(Matter.RECORDING, b, o, true))));
        OptionalDouble room = room(base);
        OptionalDouble otherRoom = room(other);
        if (room.isPresent()
                && otherRoom.isPresent()
                && !Tolerance.of(ROOM_TOLERANCE).covers(room.getAsDouble(), otherRoom.getAsDouble())) {
            found.add(new Difference(
                    Matter.ROOM,
                    String.format(Locale.ROOT, "%.1f °C", room.getAsDouble()),
                    String.format(Locale.ROOT, "%.1f °C", otherRoom.getAsDouble()),
                    true));
        }
        if (!base.isEmpty() && !other.isEmpty()) {
            long days = Duration.between(middle(base), middle(other)).toDays();
            if (days != 0) {
                found.add(new Difference(
                        Matter.DAYS,
                        "",
                        Math.abs(days) + (Math.abs(days) == 1 ? " day " : " days ") + (days > 0 ? "later" : "earlier"),
                        false));
            }
        }
        return found;
    }

    private static Optional<String> words(
            List<SessionConditions> sessions,
            Function<SessionConditions, Optional<Boolean>> which,
            String yes,
            String no) {
        Set<Boolean> known =
                sessions.stream().flatMap(s -> which.apply(s).stream()).collect(Collectors.toSet());
        return known.isEmpty()
                ? Optional.empty()
                : Optional.of(known.size() > 1 ? "partly " + yes : known.contains(true) ? yes : no);
    }

    private static OptionalDouble room(List<SessionConditions> sessions) {
        return sessions.stream()
                .filter(s -> s.roomTemperature().isPresent())
                .mapToDouble(s -> s.roomTemperature().getAsDouble())
                .average();
    }

    private static Instant middle(List<SessionConditions> sessions) {
        return Instant.ofEpochMilli((long) sessions.stream()
                .mapToLong(s -> s.startedAt().toEpochMilli())
                .average()
                .orElseThrow());
    }
}
