package yarrowmark.server.ledger.sample;

import java.util.ArrayList;
import java.util.Collection;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicLong;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.core.measure.Scale;
import yarrowmark.core.quality.AnotherDay;
import yarrowmark.core.stats.Noise;
import yarrowmark.core.stats.NoisePrior;
import yarrowmark.core.stats.SessionNoise;
import yarrowmark.core.stats.SharedDay;
import yarrowmark.core.stats.UsualSpread;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.catalog.TestGroup;
import yarrowmark.server.platform.change.Mirror;
import yarrowmark.server.platform.change.RecordsChanged;

/**
 * What all samples of a metric lend to each of them, and how far days move the tests of a suite version together. Found again
 * once a sample of the suite version changed: reading every sample for each question would make each question as slow as
 * the ledger is long.
 */
@Service
public class NoisePriorCache implements Mirror {
    /** Tests of the same group say little about each other. */
    private static final double MOST_BY_GROUP = 4;
    /** Below so many tests, it is not the session that was off. */
    private static final int FEWEST_OFF = 3;

    private final SampleCache samples;
    private final NoiseExclusion noiseExclusion;
    private final UsualSpreads usual;
    private final Map<Long, Version> known = new ConcurrentHashMap<>();
    /** Versions of suites whose samples a display may hold: facts and decisions change what they lend. */
    private final Set<Long> capped = ConcurrentHashMap.newKeySet();
    /** How often anything changed, and samples of a suite version; what was found meanwhile is not kept. */
    private final Map<Long, Long> changes = new ConcurrentHashMap<>();

    private final AtomicLong anyChange = new AtomicLong();

    /** What is known of a suite version. @param borrowed whether some of it rests on other suites, or on nothing measured */
    private record Version(
            Map<Long, Noise> noise, SharedDay day, Map<Long, Double> percent, List<OddSample> odd, boolean borrowed) {}

    /**
     * A sample whose sessions differ far more than sessions do elsewhere.
     *
     * @param session the one that lies apart
     * @param size    by how much, on merits
     * @param whole   whether at least half of that session's tests, and three, are off the same way
     */
    public record OddSample(long configurationId, long metricId, long session, double size, boolean whole) {}

    NoisePriorCache(SampleCache samples, NoiseExclusion noiseExclusion, UsualSpreads usual) {
        this.samples = samples;
        this.noiseExclusion = noiseExclusion;
        this.usual = usual;
    }

    /** @param all every metric there is: those of a suite version lend to one another where one alone has too few samples */
    @Transactional(readOnly = true)
    public KnownNoise of(Collection<MetricRow> metrics, Collection<MetricRow> all) {
        Map<Long, Version> versions = versions(metrics, all);
        Map<Long, Noise> noise = new HashMap<>();
        Map<Long, SharedDay> days = new HashMap<>();
        Map<Long, Double> percent = new HashMap<>();
        versions.values().forEach(version -> {
            noise.putAll(version.noise());
            version.noise().keySet().forEach(metric -> days.put(metric, version.day()));
            percent.putAll(version.percent());
        });
        return new KnownNoise(noise, days, percent);
    }

    /** Samples of these metrics that were measured in sessions which differ far more than sessions do elsewhere. */
    @Transactional(readOnly = true)
    public List<OddSample> odd(Collection<MetricRow> metrics, Collection<MetricRow> all) {
        return versions(metrics, all).values().stream()
                .flatMap(v -> v.odd().stream())
                .toList();
    }

    private Map<Long, Version> versions(Collection<MetricRow> metrics, Collection<MetricRow> all) {
        Map<Long, Version> there = new HashMap<>();
        Set<Long> missing = new HashSet<>();
        for (MetricRow m : metrics) {
            Version version = known.get(m.suiteVersionId());
            if (version == null) {
                missing.add(m.suiteVersionId());
            } else {
                there.put(m.suiteVersionId(), version);
            }
        }
        if (!missing.isEmpty()) {
            there.putAll(found(missing, all));
        }
        return there;
    }

    /** Whole suite versions at once: their tests lend to one another how days differ. */
    private Map<Long, Version> found(Set<Long> versions, Collection<MetricRow> every) {
        Map<Long, Long> before = versions.stream().collect(Collectors.toMap(v -> v, v -> changes.getOrDefault(v, 0L)));
        long anyBefore = anyChange.get();
        Map<Long, List<MetricRow>> byVersion = every.stream()
                .filter(m -> versions.contains(m.suiteVersionId()))
                .collect(Collectors.groupingBy(MetricRow::suiteVersionId, LinkedHashMap::new, Collectors.toList()));
        List<MetricRow> near = byVersion.values().stream().flatMap(List::stream).toList();
        near.stream().filter(MetricRow::capped).forEach(m -> capped.add(m.suiteVersionId()));
        // Asked once for all: other tests of a group may lend as well.
        Set<NoiseExclusion.Place> silent = noiseExclusion.among(every);
        Map<Long, List<Samples.SampleRow>> rows = lending(near, silent);
        Groups groups = new Groups(every, silent);
        Map<Long, Version> found = new HashMap<>();
        byVersion.forEach((id, metrics) -> {
            Version version = ofVersion(metrics, rows, groups);
            found.put(id, version);
            known.put(id, version);
            boolean changed = !changes.getOrDefault(id, 0L).equals(before.get(id))
                    || version.borrowed() && anyChange.get() != anyBefore;
            if (changed) {
                known.remove(id);
            }
        });
        return found;
    }

    /** By metric, without what a display holds. */
    private Map<Long, List<Samples.SampleRow>> lending(
            Collection<MetricRow> metrics, Set<NoiseExclusion.Place> silent) {
        return samples.ofMetrics(metrics.stream().map(MetricRow::id).toList()).stream()
                .filter(r -> silent.isEmpty()
                        || !silent.contains(new NoiseExclusion.Place(r.configurationId(), r.metricId())))
                .collect(Collectors.groupingBy(Samples.SampleRow::metricId));
    }

    /** What tests of the same group on this shelf lend; read once for all groups, and only where one is asked for. */
    private final class Groups {
        private final List<MetricRow> ratios;
        private final Set<NoiseExclusion.Place> silent;
        private final Map<TestGroup, Optional<NoisePrior>> known = new EnumMap<>(TestGroup.class);
        private @Nullable Map<Long, List<Samples.SampleRow>> rows;

        Groups(Collection<MetricRow> every, Set<NoiseExclusion.Place> silent) {
            this.silent = silent;
            ratios = every.stream().filter(m -> m.scale() == Scale.RATIO).toList();
        }

        Optional<NoisePrior> of(TestGroup group) {
            Map<Long, List<Samples.SampleRow>> all = rows == null ? lending(ratios, silent) : rows;
            rows = all;
            return known.computeIfAbsent(group, g -> prior(ratios.stream()
                            .filter(m -> m.group() == g)
                            .flatMap(m -> all.getOrDefault(m.id(), List.of()).stream()))
                    .map(p -> new NoisePrior(Math.min(MOST_BY_GROUP, p.degreesOfFreedom()), p.variance())));
        }
    }

    private Version ofVersion(List<MetricRow> metrics, Map<Long, List<Samples.SampleRow>> rows, Groups groups) {
        // Ratios and differences have noise of different kinds, so neither lends to the other.
        List<MetricRow> ratios =
                metrics.stream().filter(m -> m.scale() == Scale.RATIO).toList();
        Optional<NoisePrior> ofAll = prior(ratios.stream().flatMap(m -> rows.getOrDefault(m.id(), List.of()).stream()));
        Map<Long, Double> percent = new HashMap<>();
        List<Noise> runs = new ArrayList<>();
        List<SessionNoise.Cell> cells = new ArrayList<>();
        for (MetricRow m : ratios) {
            List<Samples.SampleRow> own = rows.getOrDefault(m.id(), List.of());
            Optional<NoisePrior> ofMetric = prior(own.stream());
            Noise noise = ofMetric.isPresent()
                    ? new Noise(ofMetric, Optional.empty(), Noise.Source.METRIC)
                    : ofAll.isPresent()
                            ? new Noise(ofAll, Optional.empty(), Noise.Source.SUITE_VERSION)
                            : unmeasured(m, groups);
            if (noise.source() == Noise.Source.USUAL) {
                percent.put(m.id(), usual.percent(m));
            }
            int index = runs.size();
            runs.add(noise);
            own.forEach(r -> cells.add(new SessionNoise.Cell(r.configurationId(), index, r.sample())));
        }
        SessionNoise.Found days = SessionNoise.fit(cells, runs);
        Map<Long, Noise> known = new HashMap<>();
        List<Noise> withDays = new ArrayList<>();
        List<OddSample> odd = new ArrayList<>();
        for (int j = 0; j < runs.size(); j++) {
            long metric = ratios.get(j).id();
            Noise noise = runs.get(j).withDays(days.noise().get(j).orElseThrow());
            withDays.add(noise);
            known.put(metric, noise);
            days.odd().get(j).forEach(c -> {
                AnotherDay day = AnotherDay.of(c.sample());
                odd.add(new OddSample(c.configuration(), metric, day.session(), day.size(), false));
            });
        }
        SharedDay day = SharedDay.fit(
                cells.stream().filter(c -> ratios.get(c.metric()).main()).toList(), withDays);
        for (MetricRow m : metrics) {
            if (m.scale() != Scale.RATIO) {
                known.put(m.id(), ofDifferences(rows.getOrDefault(m.id(), List.of())));
            }
        }
        boolean borrowed = runs.stream().anyMatch(n -> !n.source().isMeasured());
        return new Version(known, day, percent, told(odd, cells), borrowed);
    }

    /** A session most of whose tests are off the same way is another matter than a test that is. */
    private static List<OddSample> told(List<OddSample> odd, List<SessionNoise.Cell> cells) {
        Set<Long> sessions = odd.stream().map(OddSample::session).collect(Collectors.toSet());
        Map<Long, Integer> tests = new HashMap<>();
        if (!sessions.isEmpty()) {
            cells.forEach(c -> c.sample().sessions().stream()
                    .filter(s -> sessions.contains(s.session()))
                    .forEach(s -> tests.merge(s.session(), 1, Integer::sum)));
        }
        return odd.stream()
                .map(o -> {
                    long alike = odd.stream()
                            .filter(x -> x.session() == o.session() && x.size() > 0 == o.size() > 0)
                            .count();
                    boolean whole = alike >= FEWEST_OFF && 2 * alike >= tests.getOrDefault(o.session(), 0);
                    return new OddSample(o.configurationId(), o.metricId(), o.session(), o.size(), whole);
                })
                .toList();
    }

    private Noise unmeasured(MetricRow m, Groups groups) {
        if (m.repeatability() != null) {
            return Noise.of(new UsualSpread(m.repeatability()), Noise.Source.STATED);
        }
        return groups.of(m.group())
                .map(p -> new Noise(Optional.of(p), Optional.empty(), Noise.Source.GROUP))
                .orElseGet(() -> Noise.of(usual.of(m), Noise.Source.USUAL));
    }

    private static Optional<NoisePrior> prior(Stream<Samples.SampleRow> rows) {
        return NoisePrior.fit(rows.map(Samples.SampleRow::sample).toList());
    }

    private static Noise ofDifferences(List<Samples.SampleRow> rows) {
        Optional<NoisePrior> prior = prior(rows.stream());
        Noise runs = new Noise(prior, Optional.empty(), prior.isPresent() ? Noise.Source.METRIC : Noise.Source.NOTHING);
        return SessionNoise.fit(
                        rows.stream()
                                .map(r -> new SessionNoise.Cell(r.configurationId(), 0, r.sample()))
                                .toList(),
                        List.of(runs))
                .noise()
                .get(0)
                .map(runs::withDays)
                .orElse(runs);
    }

    @Override
    public void note(RecordsChanged change) {
        anyChange.incrementAndGet();
        if (change instanceof UsualSpreadsChanged) {
            usual.forget();
        }
        Set<Long> others = new HashSet<>();
        // What rests on other suites, on what somebody stated or on what is usual may rest on something else now.
        known.forEach((id, version) -> {
            if (version.borrowed()) {
                others.add(id);
            }
        });
        if (change instanceof SamplesChanged samplesChanged) {
            others.addAll(samplesChanged.suiteVersions());
        } else if (change instanceof ConditionsChanged) {
            others.addAll(known.keySet());
        } else {
            others.addAll(capped);
        }
        others.forEach(v -> {
            changes.merge(v, 1L, Long::sum);
            known.remove(v);
        });
    }
}
