package yarrowmark.server.trend;

import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import yarrowmark.core.stats.Sample;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.ledger.mark.ReadingMarks;
import yarrowmark.server.ledger.record.LedgerSessions;
import yarrowmark.server.ledger.sample.Samples;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.shelf.ModelPage;
import yarrowmark.server.shelf.ShelfPages;
import yarrowmark.server.shelf.configuration.ConfigurationRow;
import yarrowmark.server.shelf.configuration.KnownFacts;

/** What was measured of a model or of one of its units, with the facts and days that it can be ordered by. */
@Service
class TrendSource {
    private final ShelfPages shelf;
    private final KnownFacts facts;
    private final Catalog catalog;
    private final Samples samples;
    private final LedgerSessions sessions;
    private final ReadingMarks marks;

    TrendSource(
            ShelfPages shelf,
            KnownFacts facts,
            Catalog catalog,
            Samples samples,
            LedgerSessions sessions,
            ReadingMarks marks) {
        this.shelf = shelf;
        this.facts = facts;
        this.catalog = catalog;
        this.samples = samples;
        this.sessions = sessions;
        this.marks = marks;
    }

    /**
     * @param unitId the one that was asked for, or that all of those have from which it was opened
     * @param unit  its label
     * @param steps into which its results can be brought
     */
    record Measured(
            long modelId, String maker, String model, @Nullable Long unitId, @Nullable String unit, TrendSteps steps) {
        String name() {
            return maker + " " + model;
        }
    }

    Measured of(TrendAsk ask, List<MetricRow> all) {
        Set<Long> between = ask.between() == null ? Set.of() : ask.between();
        if (ask.unit() != null || between.isEmpty()) {
            return of(ask.model(), ask.unit(), all);
        }
        Long shared = shelf.model(ask.model()).units().stream()
                .filter(u -> u.configurations().stream()
                        .map(ModelPage.ConfigurationPart::id)
                        .collect(Collectors.toSet())
                        .containsAll(between))
                .map(ModelPage.UnitPart::id)
                .findFirst()
                .orElse(null);
        return of(ask.model(), shared, all);
    }

    /** @param all every metric in use */
    Measured of(long modelId, @Nullable Long unit, List<MetricRow> all) {
        ModelPage page = shelf.model(modelId);
        List<ModelPage.UnitPart> units = page.units().stream()
                .filter(u -> unit == null || u.id() == unit)
                .toList();
        if (unit != null && units.isEmpty()) {
            throw Problem.notFound("unit of this model", unit);
        }
        Map<Long, Long> oldest = catalog.comparable(all);
        Map<Long, Map<Long, Sample>> cells = cells(units, oldest);
        List<ConfigurationRow> measured = shelf.configurations(cells.keySet()).stream()
                .sorted((a, b) -> Long.compare(a.id(), b.id()))
                .toList();
        if (measured.isEmpty()) {
            throw Problem.invalid(
                    "nothing-measured",
                    "Nothing of " + page.model().maker() + " " + page.model().name()
                            + " was measured yet. Bring it to the bench first.");
        }
        Set<Long> sessionIds = new HashSet<>();
        cells.values().forEach(c -> c.values().forEach(s -> s.sessions().forEach(o -> sessionIds.add(o.session()))));
        return new Measured(
                page.model().id(),
                page.model().maker(),
                page.model().name(),
                unit,
                unit == null ? null : units.get(0).label(),
                new TrendSteps(
                        measured,
                        facts.of(cells.keySet()),
                        cells,
                        held(all, oldest, cells.keySet()),
                        sessions.daysOf(sessionIds)));
    }

    /** Samples by configuration and metric, those of joined comparability groups as one. */
    private Map<Long, Map<Long, Sample>> cells(List<ModelPage.UnitPart> units, Map<Long, Long> oldest) {
        Set<Long> ids = units.stream()
                .flatMap(u -> u.configurations().stream())
                .filter(c -> c.mergedInto() == null)
                .map(ModelPage.ConfigurationPart::id)
                .collect(Collectors.toSet());
        Map<Long, Map<Long, Sample>> cells = new HashMap<>();
        for (Samples.SampleRow row : samples.ofConfigurations(ids)) {
            Long column = oldest.get(row.metricId());
            if (column != null) {
                cells.computeIfAbsent(row.configurationId(), c -> new HashMap<>())
                        .merge(column, row.sample(), Sample::joined);
            }
        }
        return cells;
    }

    /** Metrics that a display holds, by configuration. */
    private Map<Long, Set<Long>> held(List<MetricRow> all, Map<Long, Long> oldest, Set<Long> configurations) {
        Map<Long, Set<Long>> held = new HashMap<>();
        marks.held(all).forEach(h -> {
            Long column = oldest.get(h.metricId());
            if (column != null && configurations.contains(h.configurationId())) {
                held.computeIfAbsent(h.configurationId(), c -> new HashSet<>()).add(column);
            }
        });
        return held;
    }
}
