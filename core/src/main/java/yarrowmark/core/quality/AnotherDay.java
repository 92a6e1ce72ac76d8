package yarrowmark.core.quality;

import java.util.Comparator;
import java.util.List;
import yarrowmark.core.stats.Sample;

/**
 * The session of a sample whose sessions differ far more than elsewhere: the one farthest from the mean of the others, of two
 * the later one. It asks for a condition, or for setting aside; nothing leaves the totals by itself. Section 6.
 *
 * @param session its number
 * @param size    its mean less the mean of the others, on merits: below 0 where it was worse
 */
public record AnotherDay(long session, double size) {
    /** @param sample of two sessions or more */
    public static AnotherDay of(Sample sample) {
        List<Sample.OfSession> all = sample.sessions();
        if (all.size() < 2) {
            throw new IllegalArgumentException("one session alone is no other day");
        }
        double sum = all.stream().mapToDouble(s -> s.moments().mean()).sum();
        List<AnotherDay> days = all.stream()
                .map(s -> {
                    double own = s.moments().mean();
                    return new AnotherDay(s.session(), own - (sum - own) / (all.size() - 1));
                })
                .toList();
        // Of two, each is as far from the other.
        return all.size() == 2
                ? days.get(1)
                : days.stream()
                        .max(Comparator.comparingDouble(d -> Math.abs(d.size)))
                        .orElseThrow();
    }
}
