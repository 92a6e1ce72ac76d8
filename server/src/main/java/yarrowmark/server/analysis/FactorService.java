package yarrowmark.server.analysis;

import static yarrowmark.server.platform.Require.require;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.core.factor.TwoFactors;
import yarrowmark.core.measure.Scale;
import yarrowmark.core.stats.Centre;
import yarrowmark.core.stats.Sample;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.catalog.Purposes;
import yarrowmark.server.ledger.mark.ReadingMarks;
import yarrowmark.server.ledger.record.RunsWithoutScore;
import yarrowmark.server.ledger.sample.KnownNoise;
import yarrowmark.server.ledger.sample.NoisePriorCache;
import yarrowmark.server.ledger.sample.SessionSelection;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.shelf.ShelfPages;
import yarrowmark.server.shelf.configuration.ConfigurationRow;
import yarrowmark.server.shelf.configuration.DifferencePage;
import yarrowmark.server.shelf.configuration.Differences;

/** Lays configurations out by two facts in which they differ. */
@Service
class FactorService {
    private static final String DEVICE = "device";
    private static final int MOST_LEVELS = 6;
    private static final int MOST_REASONS = 3;

    /** @param first a fact's key, or "device"; absent: what differs first */
    record Question(
            List<Long> ids,
            @Nullable String first,
            @Nullable String second,
            @Nullable Long metric,
            @Nullable Long purpose) {}

    private final ShelfPages shelf;
    private final Catalog catalog;
    private final Purposes purposes;
    private final ComparedSamples compared;
    private final NoisePriorCache lent;
    private final ReadingMarks marks;
    private final RunsWithoutScore withoutScore;
    private final Differences differences;

    FactorService(
            ShelfPages shelf,
            Catalog catalog,
            Purposes purposes,
            ComparedSamples compared,
            NoisePriorCache lent,
            ReadingMarks marks,
            RunsWithoutScore withoutScore,
            Differences differences) {
        this.withoutScore = withoutScore;
        this.differences = differences;
        this.shelf = shelf;
        this.catalog = catalog;
        this.purposes = purposes;
        this.compared = compared;
        this.lent = lent;
        this.marks = marks;
    }

    /** What a cell's configuration has in each metric, and with which noise. */
    private record Measured(Map<Long, Sample> samples, KnownNoise noise) {}

    @Transactional(readOnly = true)
    public FactorGrid grid(Question q) {
        List<Long> ids = q.ids().stream().distinct().toList();
        if (ids.size() < 2) {
            throw Problem.invalid(
                    "not-two", "Two factors need configurations that differ: two at least, four for an answer.");
        }
        Map<Long, Map<String, String>> levels = new HashMap<>();
        List<FactorGrid.FactorChoice> choices = choices(ids, levels);
        List<FactorGrid.FactorChoice> fullest =
                q.first() == null && q.second() == null ? fullest(choices, ids, levels) : List.of();
        FactorGrid.FactorChoice first = fullest.isEmpty() ? chosen(choices, q.first(), null) : fullest.get(0);
        FactorGrid.FactorChoice second = fullest.isEmpty() ? chosen(choices, q.second(), first) : fullest.get(1);
        if (first == null || second == null) {
            return new FactorGrid(choices, first, second, null, List.of(), List.of(), List.of(), null, List.of());
        }
        Map<Long, ConfigurationRow> rows =
                shelf.configurations(ids).stream().collect(Collectors.toMap(ConfigurationRow::id, c -> c));
        List<List<ConfigurationRow>> cells = new ArrayList<>();
        for (String a : first.levels()) {
            for (String b : second.levels()) {
                cells.add(ids.stream()
                        .filter(id -> a.equals(require(levels, id).get(first.key()))
                                && b.equals(require(levels, id).get(second.key())))
                        .map(rows::get)
                        .sorted(Comparator.comparingLong(ConfigurationRow::id).reversed())
                        .toList());
            }
        }
        List<Long> taken =
                cells.stream().filter(c -> !c.isEmpty()).map(c -> c.get(0).id()).toList();
        List<MetricRow> all = catalog.metricsInUse();
        ComparedSamples.Table table = compared.table(
                new LinkedHashSet<>(taken),
                all.stream().filter(m -> m.main() && m.scale() == Scale.RATIO).toList(),
                all,
                null,
                SessionSelection.USUAL,
                ids.get(0),
                SessionSelection.USUAL);
        List<MetricRow> shared = table.metrics().stream()
                .filter(m -> taken.stream().allMatch(id -> table.sample(id, m.id()) != null))
                .toList();
        MetricRow metric = q.metric() == null
                ? null
                : shared.stream()
                        .filter(m -> m.id() == q.metric())
                        .findFirst()
                        .orElseThrow(() -> Problem.invalid(
                                "not-shared",
                                "Not every cell of the grid has this test. Choose one that all of them ran."));
        List<MetricRow> used = metric == null ? counted(shared, taken) : List.of(metric);
        Map<Long, Double> weights =
                metric == null ? purposes.purpose(q.purpose()).weights(used) : Map.of(metric.id(), 1.0);
        KnownNoise noise = lent.of(used, all);
        List<TwoFactors.@Nullable Cell> merits = cells.stream()
                .map(c -> c.isEmpty() || weights.isEmpty()
                        ? null
                        : cell(new Measured(table.cells().getOrDefault(c.get(0).id(), Map.of()), noise), weights))
                .collect(Collectors.toCollection(ArrayList::new));
        return new FactorGrid(
                choices,
                first,
                second,
                metric,
                shared,
                dropped(table, taken, rows),
                FactorRows.rows(first, second, cells, merits, metric),
                days(merits),
                FactorRows.blocks(first, second, merits));
    }

    /** Tests that some cells have and others do not, with the reason: a crash is a result that nobody may overlook. */
    private List<FactorGrid.Dropped> dropped(
            ComparedSamples.Table table, List<Long> taken, Map<Long, ConfigurationRow> rows) {
        Map<Long, ConfigurationRow> in = new HashMap<>();
        taken.forEach(id -> in.put(id, require(rows, id)));
        NotRun notRun = new NotRun(in, withoutScore.latest(taken), table.measured());
        List<FactorGrid.Dropped> dropped = new ArrayList<>();
        for (MetricRow m : table.metrics()) {
            List<Long> without = taken.stream()
                    .filter(id -> table.sample(id, m.id()) == null)
                    .toList();
            if (!without.isEmpty()) {
                dropped.add(new FactorGrid.Dropped(
                        m.test(),
                        m.suite(),
                        without.stream().anyMatch(id -> notRun.ended(id, m)),
                        without.stream()
                                .limit(MOST_REASONS)
                                .map(id -> notRun.reason(id, m))
                                .toList()));
            }
        }
        dropped.sort(Comparator.comparing((FactorGrid.Dropped d) -> !d.failed()));
        return dropped;
    }

    /** Without what a display holds on any of them: that says nothing about what the factors do. */
    private List<MetricRow> counted(List<MetricRow> shared, List<Long> taken) {
        var held = marks.held(shared);
        return shared.stream()
                .filter(m -> taken.stream().noneMatch(id -> held.contains(new ReadingMarks.HeldSample(id, m.id()))))
                .toList();
    }

    private List<FactorGrid.FactorChoice> choices(List<Long> ids, Map<Long, Map<String, String>> levels) {
        DifferencePage page = differences.of(ids, ids.get(0), null);
        List<FactorGrid.FactorChoice> choices = new ArrayList<>();
        List<ConfigurationRow> in = page.configurations();
        in.forEach(c -> levels.computeIfAbsent(c.id(), id -> new HashMap<>()).put(DEVICE, c.maker() + " " + c.model()));
        choices.add(new FactorGrid.FactorChoice(
                DEVICE,
                "Device",
                in.stream().map(c -> c.maker() + " " + c.model()).distinct().toList()));
        for (DifferencePage.FactRow row : page.differing()) {
            for (int i = 0; i < in.size(); i++) {
                String shown = row.cells().get(i).shown();
                if (shown != null) {
                    require(levels, in.get(i).id()).put(row.key(), shown);
                }
            }
            choices.add(new FactorGrid.FactorChoice(
                    row.key(),
                    row.label(),
                    row.cells().stream()
                            .map(DifferencePage.FactCell::shown)
                            .filter(Objects::nonNull)
                            .distinct()
                            .toList()));
        }
        return choices.stream()
                .filter(c -> c.levels().size() > 1 && c.levels().size() <= MOST_LEVELS)
                .toList();
    }

    /** The two in which the grid has the fewest holes; of equal ones the first. Empty where there are no two. */
    private static List<FactorGrid.FactorChoice> fullest(
            List<FactorGrid.FactorChoice> choices, List<Long> ids, Map<Long, Map<String, String>> levels) {
        List<FactorGrid.FactorChoice> best = List.of();
        double most = 0;
        for (FactorGrid.FactorChoice a : choices) {
            for (FactorGrid.FactorChoice b : choices.subList(choices.indexOf(a) + 1, choices.size())) {
                long cells = ids.stream()
                        .map(levels::get)
                        .filter(l -> l.containsKey(a.key()) && l.containsKey(b.key()))
                        .map(l -> List.of(l.get(a.key()), l.get(b.key())))
                        .distinct()
                        .count();
                double share = (double) cells / (a.levels().size() * b.levels().size());
                if (share > most) {
                    most = share;
                    best = List.of(a, b);
                }
            }
        }
        return best;
    }

    private static FactorGrid.@Nullable FactorChoice chosen(
            List<FactorGrid.FactorChoice> choices, @Nullable String key, FactorGrid.@Nullable FactorChoice other) {
        if (key != null) {
            return choices.stream()
                    .filter(c -> c.key().equals(key))
                    .findFirst()
                    .orElseThrow(() -> Problem.invalid(
                            "not-a-factor",
                            "These configurations do not differ in \"" + key + "\", or in more than " + MOST_LEVELS
                                    + " ways. They differ in "
                                    + choices.stream()
                                            .map(FactorGrid.FactorChoice::label)
                                            .collect(Collectors.joining(", "))
                                    + "."));
        }
        return choices.stream().filter(c -> c != other).findFirst().orElse(null);
    }

    private static @Nullable String days(List<TwoFactors.@Nullable Cell> merits) {
        List<TwoFactors.Cell> there = merits.stream().filter(Objects::nonNull).toList();
        return there.isEmpty() ? null : TwoFactors.days(there).words();
    }

    private static TwoFactors.Cell cell(Measured measured, Map<Long, Double> weights) {
        return TwoFactors.Cell.of(weights.entrySet().stream()
                .map(w -> new TwoFactors.Part(
                        w.getValue(),
                        Centre.of(
                                require(measured.samples(), w.getKey()),
                                measured.noise().of(w.getKey())),
                        measured.noise().day(w.getKey())))
                .toList());
    }
}
