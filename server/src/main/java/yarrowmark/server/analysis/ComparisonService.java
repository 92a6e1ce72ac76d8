package yarrowmark.server.analysis;

import static yarrowmark.server.platform.Require.require;

import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.core.compare.Materiality;
import yarrowmark.core.measure.Merit;
import yarrowmark.core.setup.SessionConditions;
import yarrowmark.core.stats.Sample;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.catalog.PurposeRow;
import yarrowmark.server.catalog.Purposes;
import yarrowmark.server.catalog.TestGroup;
import yarrowmark.server.ledger.mark.ReadingMarks;
import yarrowmark.server.ledger.record.LedgerSessions;
import yarrowmark.server.ledger.record.RunsWithoutScore;
import yarrowmark.server.ledger.sample.CountedSessions;
import yarrowmark.server.ledger.sample.KnownNoise;
import yarrowmark.server.ledger.sample.NoisePriorCache;
import yarrowmark.server.ledger.sample.Samples;
import yarrowmark.server.ledger.sample.SessionSelection;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.shelf.ShelfPages;
import yarrowmark.server.shelf.configuration.ConfigurationRow;
import yarrowmark.server.shelf.configuration.DifferencePage;
import yarrowmark.server.shelf.configuration.Differences;

/** Holds configurations against a base, from stored samples; single readings are never read. */
@Service
class ComparisonService {
    /** The base and seven others: as many as fit on the table. */
    static final int MOST = 8;

    private static final int NAMED = 5;
    /** What matters until somebody says otherwise. */
    private static final double MATERIALITY_PERCENT = 3;

    /**
     * What is asked.
     *
     * @param group       only tests of this group
     * @param suite       only tests of this suite version
     * @param materiality in per cent
     * @param per         a key of {@link Quantities}
     * @param take        which sessions of the others
     * @param baseTake    which sessions of the base
     * @param without     parts that somebody leaves out: "group:" and its name, "suite:" or "test:" and its number
     */
    record Question(
            long base,
            Collection<Long> with,
            @Nullable Long purpose,
            @Nullable TestGroup group,
            @Nullable Long suite,
            double materiality,
            @Nullable String per,
            Collection<String> without,
            SessionSelection take,
            SessionSelection baseTake) {}

    private final Catalog catalog;
    private final Purposes purposes;
    private final Samples samples;
    private final NoisePriorCache lent;
    private final ReadingMarks marks;
    private final LedgerSessions sessions;
    private final ShelfPages shelf;
    private final Quantities quantities;
    private final Differences differences;
    private final CountedSessions taken;
    private final RunsWithoutScore withoutScore;
    private final ComparedSamples compared;
    private final PublishedValues published;

    ComparisonService(
            Catalog catalog,
            Purposes purposes,
            Samples samples,
            NoisePriorCache lent,
            ReadingMarks marks,
            LedgerSessions sessions,
            ShelfPages shelf,
            Quantities quantities,
            Differences differences,
            CountedSessions taken,
            RunsWithoutScore withoutScore,
            ComparedSamples compared,
            PublishedValues published) {
        this.compared = compared;
        this.published = published;
        this.withoutScore = withoutScore;
        this.taken = taken;
        this.differences = differences;
        this.catalog = catalog;
        this.purposes = purposes;
        this.samples = samples;
        this.lent = lent;
        this.marks = marks;
        this.sessions = sessions;
        this.shelf = shelf;
        this.quantities = quantities;
    }

    /** A question with all that answers to it are made of. @param quantity that everything is divided by */
    private record Asked(
            List<Long> others,
            Set<Long> ids,
            Map<Long, ConfigurationRow> rows,
            ConfigurationRow base,
            PurposeRow purpose,
            Quantities.@Nullable Known quantity,
            ComparedSamples.Table table,
            Set<ReadingMarks.HeldSample> held,
            KnownNoise noises,
            NotRun notRun,
            Left left,
            List<ComparedSide> sides,
            WithoutBase withoutBase) {
        /** Tests that the base and another one have, or that another one tried, or that the base alone lacks. */
        boolean hasLine(MetricRow m) {
            return table.base(m.id()) == null
                    || others.stream().anyMatch(id -> table.sample(id, m.id()) != null || notRun.ended(id, m));
        }
    }

    private Asked asked(Question question) {
        List<Long> others = question.with().stream()
                // With and without a condition, one configuration is held against itself.
                .filter(id -> id != question.base() || question.take() != question.baseTake())
                .distinct()
                .toList();
        if (others.isEmpty() || others.size() >= MOST) {
            throw Problem.invalid(
                    "not-two",
                    "A comparison needs a base and one to " + (MOST - 1) + " other configurations, not " + others.size()
                            + ".");
        }
        Set<Long> ids = new LinkedHashSet<>(List.of(question.base()));
        ids.addAll(others);
        Map<Long, ConfigurationRow> rows =
                shelf.configurations(ids).stream().collect(Collectors.toMap(ConfigurationRow::id, c -> c));
        ids.stream().filter(id -> !rows.containsKey(id)).findFirst().ifPresent(id -> {
            throw Problem.notFound("configuration", id);
        });
        PurposeRow purpose = purposes.purpose(question.purpose());
        Materiality materiality = materiality(question.materiality());
        List<MetricRow> all = catalog.metricsInUse();
        List<MetricRow> wanted = all.stream()
                .filter(m -> m.listed()
                        && (question.group() == null || m.group() == question.group())
                        && (question.suite() == null || m.suiteVersionId() == question.suite()))
                .toList();
        Quantities.Known quantity = question.per() == null ? null : quantities.of(question.per(), ids);
        ComparedSamples.Table table =
                compared.table(ids, wanted, all, quantity, question.take(), question.base(), question.baseTake());
        Set<ReadingMarks.HeldSample> held = marks.held(table.metrics());
        KnownNoise noises = lent.of(table.metrics(), all);
        Left left = new Left();
        NotRun notRun = new NotRun(rows, withoutScore.latest(ids), table.measured());
        ConfigurationRow base = require(rows, question.base());
        List<ComparedSide> sides = others.stream()
                .map(id -> new ComparedSide(
                        require(rows, id),
                        base,
                        table,
                        held,
                        purpose,
                        noises,
                        materiality,
                        Set.copyOf(question.without()),
                        question.take(),
                        question.baseTake(),
                        notRun,
                        left))
                .toList();
        return new Asked(
                others,
                ids,
                rows,
                base,
                purpose,
                quantity,
                table,
                held,
                noises,
                notRun,
                left,
                sides,
                new WithoutBase(others, rows, question.base(), table, noises, held, notRun, materiality));
    }

    @Transactional(readOnly = true)
    public Comparison compare(Question question) {
        Asked asked = asked(question);
        List<Comparison.ComparedRow> lines = asked.table().metrics().stream()
                .filter(asked::hasLine)
                .map(m -> line(asked, m))
                .toList();
        Map<Long, List<SessionConditions>> conditions = sessions.conditions(asked.ids(), taken.taken(question.take()));
        List<SessionConditions> ofBase = (question.take() == question.baseTake()
                        ? conditions
                        : sessions.conditions(Set.of(question.base()), taken.taken(question.baseTake())))
                .getOrDefault(question.base(), List.of());
        Map<Long, DifferencePage> differing = differences.each(question.base(), asked.others());
        Quantities.Known quantity = asked.quantity();
        List<Comparison.Side> shown = asked.sides().stream()
                .map(s -> {
                    DifferencePage changed =
                            require(differing, s.configuration().id());
                    List<SessionConditions.Difference> elsewise = SessionConditions.between(
                            ofBase, conditions.getOrDefault(s.configuration().id(), List.of()));
                    return new Comparison.Side(
                            s.configuration(),
                            s.overall(),
                            s.overall() == null ? ComparisonNotes.nothingInCommon(s, lines) : null,
                            changed,
                            elsewise,
                            ComparisonNotes.clean(changed, elsewise),
                            quantity == null
                                    ? null
                                    : quantity.shown(s.configuration().id()),
                            ComparisonNotes.swayed(s.overall(), changed, question.materiality()),
                            ComparisonNotes.nearZero(lines, asked.sides().indexOf(s)),
                            ComparisonNotes.unlike(asked.base(), s, changed, lines));
                })
                .toList();
        return new Comparison(
                asked.base(),
                shown,
                asked.purpose().name(),
                question.materiality(),
                quantity == null ? null : quantity.quantity(),
                lines,
                asked.left().out(NAMED),
                question.take(),
                question.baseTake(),
                taken.notCounted(asked.ids()),
                published.of(
                        lines.stream().map(Comparison.ComparedRow::metric).toList(),
                        asked.rows().values()));
    }

    /** Of two, as Compare opens; null where nothing that counts is shared. */
    @Transactional(readOnly = true)
    public Comparison.@Nullable Overall overall(long base, long other) {
        return asked(new Question(
                        base,
                        List.of(other),
                        null,
                        null,
                        null,
                        MATERIALITY_PERCENT,
                        null,
                        List.of(),
                        SessionSelection.USUAL,
                        SessionSelection.USUAL))
                .sides()
                .get(0)
                .overall();
    }

    static Comparison.ComparedRow line(Asked asked, MetricRow m) {
        Sample base = asked.table().base(m.id());
        return base == null
                ? asked.withoutBase().row(m)
                : new Comparison.ComparedRow(
                        m,
                        Merit.toValue(asked.noises().centre(base, m).merit(), m.direction(), m.scale()),
                        base.n(),
                        base.sessions().size(),
                        asked.held()
                                .contains(
                                        new ReadingMarks.HeldSample(asked.base().id(), m.id())),
                        asked.noises().restsOn(m),
                        null,
                        asked.sides().stream().map(s -> s.cell(m)).toList());
    }

    /** The same lines in words. */
    @Transactional(readOnly = true)
    public List<Comparison.ComparedWords> sentences(Question question) {
        Asked asked = asked(question);
        return asked.table().metrics().stream()
                .filter(asked::hasLine)
                .map(m -> new Comparison.ComparedWords(
                        m.id(),
                        asked.sides().stream()
                                .map(s -> asked.table().base(m.id()) == null
                                        ? asked.withoutBase()
                                                .sentence(s.configuration().id(), m)
                                        : s.sentence(m))
                                .toList()))
                .toList();
    }

    /** Marks of what a comparison of these lists, by sample. */
    @Transactional(readOnly = true)
    public List<CompareController.MarkedSample> marks(List<Long> ids) {
        Set<Long> wanted = catalog.metricsInUse().stream()
                .filter(MetricRow::listed)
                .map(MetricRow::id)
                .collect(Collectors.toSet());
        Set<ReadingMarks.HeldSample> these = samples.ofConfigurations(ids).stream()
                .filter(s -> wanted.contains(s.metricId()))
                .map(s -> new ReadingMarks.HeldSample(s.configurationId(), s.metricId()))
                .collect(Collectors.toSet());
        return marks.kinds(these).entrySet().stream()
                .map(e -> new CompareController.MarkedSample(
                        e.getKey().configurationId(), e.getKey().metricId(), e.getValue()))
                .toList();
    }

    static Materiality materiality(double percent) {
        try {
            return new Materiality(percent / 100);
        } catch (IllegalArgumentException e) {
            throw Problem.invalid(
                    "not-a-materiality", "What matters is above 0 % and at most 1000 %, not " + percent + " %.");
        }
    }

    /** Tests that are left out, by reason. */
    static final class Left {
        private final Map<String, Set<String>> byReason = new LinkedHashMap<>();

        void out(String reason, MetricRow metric) {
            byReason.computeIfAbsent(reason, r -> new LinkedHashSet<>()).add(metric.test());
        }

        List<Comparison.NotCounted> out(int named) {
            return byReason.entrySet().stream()
                    .map(e -> new Comparison.NotCounted(
                            e.getKey(),
                            e.getValue().stream().limit(named).toList(),
                            e.getValue().size()))
                    .toList();
        }
    }
}
