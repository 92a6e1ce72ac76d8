package yarrowmark.server.ledger.sample;

import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import yarrowmark.core.stats.Centre;
import yarrowmark.core.stats.Noise;
import yarrowmark.core.stats.Sample;
import yarrowmark.core.stats.SharedDay;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.catalog.TestGroup;

/**
 * What is known of the noise of some metrics, and of how far a day moves the tests of each suite version together.
 *
 * @param byMetric by its id
 * @param days     by metric, of its suite version
 * @param percent  usual spreads of the metrics that rest on one
 */
public record KnownNoise(Map<Long, Noise> byMetric, Map<Long, SharedDay> days, Map<Long, Double> percent) {
    public Noise of(MetricRow m) {
        return of(m.id());
    }

    public SharedDay day(MetricRow m) {
        return day(m.id());
    }

    public Noise of(long metricId) {
        return byMetric.getOrDefault(metricId, Noise.UNKNOWN);
    }

    public SharedDay day(long metricId) {
        return days.getOrDefault(metricId, SharedDay.UNKNOWN);
    }

    public Centre centre(Sample sample, MetricRow m) {
        return Centre.of(sample, of(m));
    }

    /** What is lent where nothing measured is; null where something is. */
    public @Nullable String restsOn(MetricRow m) {
        return switch (of(m).source()) {
            case STATED -> "as stated, " + rounded(m.repeatability());
            case GROUP -> "as other " + tests(m) + " here";
            case USUAL -> "as usual for " + tests(m) + ", " + rounded(percent.get(m.id()));
            default -> null;
        };
    }

    private static String tests(MetricRow m) {
        String group = m.group().label().toLowerCase(Locale.ROOT);
        return m.group() == TestGroup.EVERYDAY ? group : group + " tests";
    }

    private static String rounded(@Nullable Double percent) {
        return percent == null
                ? ""
                : (percent == Math.rint(percent) ? Long.toString(Math.round(percent)) : percent) + " %";
    }
}
