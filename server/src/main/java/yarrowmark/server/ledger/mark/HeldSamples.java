package yarrowmark.server.ledger.mark;

import static yarrowmark.server.platform.Require.require;

import jakarta.persistence.EntityManager;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.core.measure.Merit;
import yarrowmark.core.measure.Scale;
import yarrowmark.core.quality.HeldRate;
import yarrowmark.core.stats.SampleMoments;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.ledger.mark.ReadingMarks.HeldSample;
import yarrowmark.server.ledger.sample.NoiseExclusion;
import yarrowmark.server.ledger.sample.Samples;

/**
 * Samples that a display holds: they say only that the device is at least as fast, so totals leave them out, and their tiny
 * noise is that of the display and lent to nobody.
 */
@Service
class HeldSamples implements NoiseExclusion {
    /** The fact that says how fast a display can show frames, in Hz. */
    private static final String REFRESH = "display.refresh";

    private final EntityManager entities;
    private final Samples samples;
    private final MarkOverrules overrules;

    HeldSamples(EntityManager entities, Samples samples, MarkOverrules overrules) {
        this.entities = entities;
        this.samples = samples;
        this.overrules = overrules;
    }

    /** Whatever somebody decided against: a display's rate that is not the reason counts again. */
    @Transactional(readOnly = true)
    public Set<HeldSample> held(Collection<MetricRow> metrics) {
        Set<HeldSample> held = new HashSet<>(rates(metrics).keySet());
        if (!held.isEmpty()) {
            held.removeAll(overrules.open().keySet());
        }
        return held;
    }

    @Override
    @Transactional(readOnly = true)
    public Set<Place> among(Collection<MetricRow> metrics) {
        return held(metrics).stream()
                .map(h -> new Place(h.configurationId(), h.metricId()))
                .collect(Collectors.toSet());
    }

    /** With the rate that holds each. */
    @Transactional(readOnly = true)
    public Map<HeldSample, HeldRate> rates(Collection<MetricRow> metrics) {
        Map<Long, MetricRow> capped = metrics.stream()
                .filter(m -> m.capped() && m.scale() == Scale.RATIO)
                .collect(Collectors.toMap(MetricRow::id, m -> m));
        if (capped.isEmpty()) {
            return Map.of();
        }
        Map<Long, List<Samples.SampleRow>> rows =
                samples.ofMetrics(capped.keySet()).stream().collect(Collectors.groupingBy(Samples.SampleRow::metricId));
        Map<Long, Double> refresh = refreshRates();
        Map<HeldSample, HeldRate> held = new HashMap<>();
        Map<HeldSample, Double> open = new HashMap<>();
        rows.forEach((metricId, all) -> {
            Map<Long, SampleMoments> moments = all.stream()
                    .collect(Collectors.toMap(
                            Samples.SampleRow::configurationId, r -> r.sample().together()));
            Map<Long, Double> rates = new HashMap<>();
            moments.forEach((id, m) -> rates.put(
                    id, Merit.toValue(m.mean(), require(capped, metricId).direction())));
            HeldRate.Rates known = new HeldRate.Rates(rates.entrySet().stream()
                    .filter(e -> HeldRate.isSteady(require(moments, e.getKey()).spreadPercent()))
                    .mapToDouble(Map.Entry::getValue)
                    .toArray());
            moments.forEach((id, m) -> {
                OptionalDouble display =
                        refresh.containsKey(id) ? OptionalDouble.of(refresh.get(id)) : OptionalDouble.empty();
                HeldSample sample = new HeldSample(id, metricId);
                double rate = require(rates, id);
                double most = Merit.toValue(
                        m.bestPossible(), require(capped, metricId).direction());
                HeldRate.of(rate, m.spreadPercent(), display, known::shared)
                        .ifPresentOrElse(h -> held.put(sample, h), () -> {
                            if (display.isPresent() && HeldRate.couldBePartly(rate, most, display.getAsDouble())) {
                                open.put(sample, rate);
                            }
                        });
            });
        });
        largest(open.keySet()).forEach((sample, most) -> {
            Double rate = open.get(sample);
            if (rate != null) {
                HeldRate.partly(most, rate, require(refresh, sample.configurationId()))
                        .ifPresent(h -> held.put(sample, h));
            }
        });
        return held;
    }

    /** The largest value that counts, of these and perhaps of others. */
    private Map<HeldSample, Double> largest(Set<HeldSample> of) {
        Map<HeldSample, Double> largest = new HashMap<>();
        if (of.isEmpty()) {
            return largest;
        }
        entities.createQuery(
                        """
                select r.configurationId, r.metricId, max(r.value) from Reading r
                where r.configurationId in :configurations and r.metricId in :metrics
                and not exists (select 1 from SetAside a where a.readingId = r.id and a.takenBackAt is null)
                group by r.configurationId, r.metricId""",
                        Object[].class)
                .setParameter(
                        "configurations",
                        of.stream().map(HeldSample::configurationId).collect(Collectors.toSet()))
                .setParameter("metrics", of.stream().map(HeldSample::metricId).collect(Collectors.toSet()))
                .getResultList()
                .forEach(r -> largest.put(new HeldSample((Long) r[0], (Long) r[1]), (Double) r[2]));
        return largest;
    }

    private Map<Long, Double> refreshRates() {
        Map<Long, Double> rates = new HashMap<>();
        entities.createQuery(
                        "select f.configuration.id, f.factValue from Fact f where f.factKey = :key", Object[].class)
                .setParameter("key", REFRESH)
                .getResultList()
                .forEach(r -> rates.put((Long) r[0], Double.valueOf((String) r[1])));
        return rates;
    }
}
