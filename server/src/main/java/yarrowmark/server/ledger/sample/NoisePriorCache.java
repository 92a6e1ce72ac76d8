package yarrowmark.server.ledger.sample;

import static yarrowmark.server.platform.Require.require;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.core.measure.Scale;
import yarrowmark.core.stats.Noise;
import yarrowmark.core.stats.NoisePrior;
import yarrowmark.core.stats.Sample;
import yarrowmark.core.stats.SessionNoise;
import yarrowmark.core.stats.SharedDay;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.platform.Mirror;
import yarrowmark.server.platform.RecordsChanged;

/**
 * What all samples of a metric lend to each of them, and how far days move tests together. Found anew once a sample of its
 * suite version changed: reading every sample for each question would make each question as slow as the ledger is long.
 */
@Service
public class NoisePriorCache implements Mirror {
    private final SampleCache samples;
    private final NoiseExclusion noiseExclusion;
    private final Map<Long, Noise> known = new ConcurrentHashMap<>();
    private final Map<Long, Long> versionOf = new ConcurrentHashMap<>();
    /** Versions of suites whose samples a display may hold: facts and decisions change what they lend. */
    private final Set<Long> capped = ConcurrentHashMap.newKeySet();
    /** How often samples of a suite version changed; what was found meanwhile is not kept. */
    private final Map<Long, Long> changes = new ConcurrentHashMap<>();

    private final Object dayLock = new Object();
    private @Nullable SharedDay day;
    private long dayChanges;

    NoisePriorCache(SampleCache samples, NoiseExclusion noiseExclusion) {
        this.samples = samples;
        this.noiseExclusion = noiseExclusion;
    }

    /** @param all every metric there is: those of a suite version lend to one another where one alone has too few samples */
    @Transactional(readOnly = true)
    public Map<Long, Noise> of(Collection<MetricRow> metrics, Collection<MetricRow> all) {
        Map<Long, Noise> lent = new HashMap<>();
        Set<Long> missing = new HashSet<>();
        for (MetricRow m : metrics) {
            Noise there = known.get(m.id());
            if (there == null) {
                missing.add(m.suiteVersionId());
            } else {
                lent.put(m.id(), there);
            }
        }
        if (!missing.isEmpty()) {
            Map<Long, Noise> found = found(missing, all);
            metrics.forEach(m -> {
                Noise noise = found.get(m.id());
                if (noise != null) {
                    lent.put(m.id(), noise);
                }
            });
        }
        return lent;
    }

    /** How far a day moves the tests of one device together: over every test, whichever are asked about. */
    @Transactional(readOnly = true)
    public SharedDay day(Collection<MetricRow> all) {
        long before;
        synchronized (dayLock) {
            if (day != null) {
                return day;
            }
            before = dayChanges;
        }
        List<MetricRow> tests =
                all.stream().filter(m -> m.main() && m.scale() == Scale.RATIO).toList();
        Map<Long, Noise> noise = of(tests, all);
        Map<Long, Integer> index = new HashMap<>();
        double[] variance = new double[tests.size()];
        for (int j = 0; j < variance.length; j++) {
            index.put(tests.get(j).id(), j);
            variance[j] = noise.getOrDefault(tests.get(j).id(), Noise.UNKNOWN)
                    .days()
                    .map(SessionNoise::variance)
                    .orElse(Double.NaN);
        }
        List<Samples.SampleRow> rows = samples.ofMetrics(index.keySet());
        SharedDay found = SharedDay.fit(cells(rows, measuredAgain(rows), index), variance);
        synchronized (dayLock) {
            if (dayChanges == before) {
                day = found;
            }
        }
        return found;
    }

    /**
     * Configurations with a second session: the others say nothing about days, and most are others.
     *
     * @param rows those of a configuration one after the other
     */
    private static Set<Long> measuredAgain(List<Samples.SampleRow> rows) {
        Set<Long> again = new HashSet<>();
        long configuration = -1;
        long first = 0;
        boolean noted = false;
        for (Samples.SampleRow row : rows) {
            if (row.configurationId() != configuration) {
                configuration = row.configurationId();
                first = row.sample().sessions().get(0).session();
                noted = false;
            }
            if (!noted) {
                for (Sample.OfSession s : row.sample().sessions()) {
                    noted |= s.session() != first;
                }
                if (noted) {
                    again.add(configuration);
                }
            }
        }
        return again;
    }

    private static List<SessionNoise.Cell> cells(
            List<Samples.SampleRow> rows, Set<Long> again, Map<Long, Integer> index) {
        return rows.stream()
                .filter(r -> again.contains(r.configurationId()))
                .map(r -> new SessionNoise.Cell(r.configurationId(), require(index, r.metricId()), r.sample()))
                .toList();
    }

    /** Whole suite versions at once: their tests lend to one another how days differ. */
    private Map<Long, Noise> found(Set<Long> versions, Collection<MetricRow> every) {
        Map<Long, Long> before = versions.stream().collect(Collectors.toMap(v -> v, v -> changes.getOrDefault(v, 0L)));
        Map<Long, List<MetricRow>> byVersion = every.stream()
                .filter(m -> versions.contains(m.suiteVersionId()))
                .collect(Collectors.groupingBy(MetricRow::suiteVersionId, LinkedHashMap::new, Collectors.toList()));
        List<MetricRow> near = byVersion.values().stream().flatMap(List::stream).toList();
        Set<NoiseExclusion.Place> silent = noiseExclusion.among(near);
        near.stream().filter(MetricRow::capped).forEach(m -> capped.add(m.suiteVersionId()));
        List<Samples.SampleRow> all =
                samples.ofMetrics(near.stream().map(MetricRow::id).toList());
        Map<Long, List<Samples.SampleRow>> rows = all.stream()
                .filter(r -> silent.isEmpty()
                        || !silent.contains(new NoiseExclusion.Place(r.configurationId(), r.metricId())))
                .collect(Collectors.groupingBy(Samples.SampleRow::metricId));
        Set<Long> again = measuredAgain(all);
        Map<Long, Noise> found = new HashMap<>();
        byVersion.forEach((version, metrics) -> {
            found.putAll(ofVersion(metrics, rows, again));
            boolean unchanged = changes.getOrDefault(version, 0L).equals(before.get(version));
            for (MetricRow m : metrics) {
                versionOf.put(m.id(), version);
                known.put(m.id(), require(found, m.id()));
                if (!unchanged || !changes.getOrDefault(version, 0L).equals(before.get(version))) {
                    known.remove(m.id());
                }
            }
        });
        return found;
    }

    private static Map<Long, Noise> ofVersion(
            List<MetricRow> metrics, Map<Long, List<Samples.SampleRow>> rows, Set<Long> again) {
        // Ratios and differences have noise of different kinds, so neither lends to the other.
        List<MetricRow> ratios =
                metrics.stream().filter(m -> m.scale() == Scale.RATIO).toList();
        List<Sample> together = ratios.stream()
                .flatMap(m -> rows.getOrDefault(m.id(), List.of()).stream())
                .map(Samples.SampleRow::sample)
                .toList();
        Optional<NoisePrior> ofAll = NoisePrior.fit(together);
        Map<Long, Noise> noise = new HashMap<>();
        List<Optional<NoisePrior>> priors = new ArrayList<>();
        List<Noise.Source> sources = new ArrayList<>();
        Map<Long, Integer> index = new HashMap<>();
        List<Samples.SampleRow> cells = new ArrayList<>();
        for (MetricRow m : ratios) {
            List<Samples.SampleRow> own = rows.getOrDefault(m.id(), List.of());
            Optional<NoisePrior> ofMetric =
                    NoisePrior.fit(own.stream().map(Samples.SampleRow::sample).toList());
            Optional<NoisePrior> stated = Optional.ofNullable(m.repeatability()).map(Noise::stated);
            priors.add(ofMetric.or(() -> ofAll).or(() -> stated));
            sources.add(
                    ofMetric.isPresent()
                            ? Noise.Source.METRIC
                            : ofAll.isPresent()
                                    ? Noise.Source.SUITE_VERSION
                                    : stated.isPresent() ? Noise.Source.STATED : Noise.Source.NOTHING);
            index.put(m.id(), index.size());
            cells.addAll(own);
        }
        List<Optional<SessionNoise>> days = SessionNoise.fit(cells(cells, again, index), priors);
        for (int j = 0; j < priors.size(); j++) {
            noise.put(ratios.get(j).id(), new Noise(priors.get(j), days.get(j), sources.get(j)));
        }
        for (MetricRow m : metrics) {
            if (m.scale() != Scale.RATIO) {
                noise.put(m.id(), ofDifferences(rows.getOrDefault(m.id(), List.of()), again));
            }
        }
        return noise;
    }

    private static Noise ofDifferences(List<Samples.SampleRow> rows, Set<Long> again) {
        Optional<NoisePrior> prior =
                NoisePrior.fit(rows.stream().map(Samples.SampleRow::sample).toList());
        Optional<SessionNoise> days = rows.isEmpty()
                ? Optional.empty()
                : SessionNoise.ofOneMetric(cells(rows, again, Map.of(rows.get(0).metricId(), 0)), prior);
        return new Noise(prior, days, prior.isPresent() ? Noise.Source.METRIC : Noise.Source.NOTHING);
    }

    @Override
    public void note(RecordsChanged change) {
        if (change instanceof SamplesChanged samplesChanged) {
            forget(samplesChanged.suiteVersions());
        } else if (change instanceof ConditionsChanged) {
            forget(Set.copyOf(versionOf.values()));
        } else {
            Set<Long> others = new HashSet<>(capped);
            known.forEach((metric, noise) -> {
                // Somebody may have stated a repeatability, which counts where nothing better is known.
                if (noise.source() == Noise.Source.STATED || noise.source() == Noise.Source.NOTHING) {
                    others.add(require(versionOf, metric));
                }
            });
            forget(others);
        }
        synchronized (dayLock) {
            dayChanges++;
            day = null;
        }
    }

    private void forget(Set<Long> suiteVersions) {
        suiteVersions.forEach(v -> changes.merge(v, 1L, Long::sum));
        versionOf.forEach((metric, version) -> {
            if (suiteVersions.contains(version)) {
                known.remove(metric);
            }
        });
    }
}
