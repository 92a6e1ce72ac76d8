package yarrowmark.server.ledger.sample;

import java.util.Arrays;
import java.util.EnumMap;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.core.stats.UsualSpread;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.catalog.TestGroup;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.change.Cached;
import yarrowmark.server.platform.change.RecordsChanged;
import yarrowmark.server.platform.history.ChangeLog;
import yarrowmark.server.platform.records.Settings;

/**
 * How far two single results of a test usually differ, by group of tests, where nobody has measured it here. The lab may know
 * better than the trade does, and changes them.
 */
@Service
public class UsualSpreads {
    private static final String SETTING = "usual-spreads";
    /** In per cent; section 2 of the method. */
    private static final Map<TestGroup, Double> OF_THE_TRADE = Map.of(
            TestGroup.PROCESSOR, 1.5,
            TestGroup.MEMORY, 2.0,
            TestGroup.GRAPHICS, 1.5,
            TestGroup.STORAGE, 5.0,
            TestGroup.BROWSER, 2.5,
            TestGroup.NETWORK, 8.0,
            TestGroup.VIDEO, 3.0,
            TestGroup.EVERYDAY, 2.5,
            TestGroup.BODY, 2.0);
    /** Scales and a tape measure are surer than a microphone. */
    private static final double SIZE_OR_WEIGHT = 0.5;

    private static final Set<String> SIZES_AND_WEIGHTS = Set.of("g", "kg", "mg", "mm", "cm", "m");

    private final Settings settings;
    private final ChangeLog changes;
    private final ApplicationEventPublisher events;
    private final Cached<Map<TestGroup, Double>> known = new Cached<>();

    UsualSpreads(Settings settings, ChangeLog changes, ApplicationEventPublisher events) {
        this.settings = settings;
        this.changes = changes;
        this.events = events;
    }

    /** In per cent, of every group. */
    @Transactional(readOnly = true)
    public Map<TestGroup, Double> all() {
        return known.get(this::read);
    }

    private Map<TestGroup, Double> read() {
        Map<TestGroup, Double> read = new EnumMap<>(OF_THE_TRADE);
        settings.get(SETTING).ifPresent(text -> Arrays.stream(text.split(","))
                .filter(t -> !t.isBlank())
                .map(t -> t.split("="))
                .forEach(p -> read.put(TestGroup.valueOf(p[0]), Double.valueOf(p[1]))));
        return Map.copyOf(read);
    }

    UsualSpread of(MetricRow metric) {
        return new UsualSpread(percent(metric));
    }

    double percent(MetricRow metric) {
        return metric.group() == TestGroup.BODY && SIZES_AND_WEIGHTS.contains(metric.unit())
                ? SIZE_OR_WEIGHT
                : all().get(metric.group());
    }

    /** @param spreads of the groups that are changed, in per cent */
    @Transactional
    public void change(Map<TestGroup, Double> spreads, String person) {
        Map<TestGroup, Double> now = new EnumMap<>(all());
        spreads.forEach((group, percent) -> {
            try {
                new UsualSpread(percent);
            } catch (IllegalArgumentException e) {
                throw Problem.invalid(
                        "not-a-spread",
                        "The usual spread of " + group.label() + " is 0.0001 to 1000 %, not " + percent + " %.");
            }
            Double before = now.put(group, percent);
            if (!percent.equals(before)) {
                changes.note(person, "usual spread", 0, "of " + group.label(), before + " %", percent + " %");
            }
        });
        settings.put(
                SETTING,
                now.entrySet().stream()
                        .map(e -> e.getKey() + "=" + e.getValue())
                        .collect(Collectors.joining(",")));
        known.forget();
        events.publishEvent((RecordsChanged) new UsualSpreadsChanged());
    }

    /** What was read before a change was committed, or rolled back, is read again. */
    void forget() {
        known.forget();
    }
}
