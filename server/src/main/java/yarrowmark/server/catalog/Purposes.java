package yarrowmark.server.catalog;

import java.time.Clock;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.history.ChangeLog;

/** Named sets of weights: what somebody does with a device. */
@Service
public class Purposes {
    /** The purpose everybody has: every group weighs the same. */
    public static final String ALL_ROUND = "all-round use";

    private static final String SUBJECT = "purpose";

    private final PurposeRepository purposes;
    private final SuiteRepository suites;
    private final TestDefinitionRepository tests;
    private final ChangeLog changes;
    private final Clock clock;

    Purposes(
            PurposeRepository purposes,
            SuiteRepository suites,
            TestDefinitionRepository tests,
            ChangeLog changes,
            Clock clock) {
        this.purposes = purposes;
        this.suites = suites;
        this.tests = tests;
        this.changes = changes;
        this.clock = clock;
    }

    /** The usual one first. */
    @Transactional(readOnly = true)
    public List<PurposeRow> all() {
        return purposes.findByRetiredAtIsNullOrderById().stream()
                .map(PurposeRow::of)
                .toList();
    }

    /** @param id null for the usual one */
    @Transactional(readOnly = true)
    public PurposeRow purpose(@Nullable Long id) {
        return id == null ? all().get(0) : PurposeRow.of(find(id));
    }

    @Transactional
    public void ensure(String name, Map<TestGroup, Double> weights) {
        if (purposes.findByName(name).isEmpty()) {
            purposes.save(new Purpose(name, weights));
        }
    }

    @Transactional
    PurposeRow make(String name, PurposeWeighing weighing, String person) {
        refuseTwin(name, null);
        Purpose made = new Purpose(name, Map.of());
        made.change(name, known(weighing.checked()));
        purposes.save(made);
        changes.note(person, SUBJECT, made.id(), ChangeLog.MADE, null, words(made));
        return PurposeRow.of(made);
    }

    @Transactional
    PurposeRow change(long id, String name, PurposeWeighing weighing, String person) {
        Purpose purpose = own(id);
        refuseTwin(name, id);
        String before = words(purpose);
        purpose.change(name, known(weighing.checked()));
        changes.note(person, SUBJECT, id, "weights", before, words(purpose));
        return PurposeRow.of(purpose);
    }

    /** Out of the way: nothing is ranked by it any more, and its name is free again. */
    @Transactional
    void retire(long id, String person) {
        Purpose purpose = own(id);
        changes.note(person, SUBJECT, id, "retired", words(purpose), null);
        purpose.change(purpose.name() + " (retired " + id + ")", purpose.weighing());
        purpose.retire(clock.instant());
    }

    private Purpose find(long id) {
        return purposes.findById(id).filter(p -> !p.isRetired()).orElseThrow(() -> Problem.notFound(SUBJECT, id));
    }

    private Purpose own(long id) {
        Purpose purpose = find(id);
        if (purpose.name().equals(ALL_ROUND)) {
            throw Problem.conflict(
                    "the-usual-purpose",
                    "\"" + ALL_ROUND
                            + "\" is what everybody has and stays as it is. Save these weights under a name of their own.");
        }
        return purpose;
    }

    private void refuseTwin(String name, @Nullable Long id) {
        purposes.findByName(name).filter(p -> !p.id().equals(id)).ifPresent(p -> {
            throw Problem.conflict(
                    "purpose-exists",
                    "There is a purpose called \"" + name + "\" already. Choose another name, or change that one.");
        });
    }

    /** What weighs 1 beside the others need not be kept. */
    private PurposeWeighing known(PurposeWeighing w) {
        Set<Long> unknownSuites = w.suites().keySet().stream()
                .filter(id -> !suites.existsById(id))
                .collect(Collectors.toSet());
        Set<Long> unknownTests =
                w.tests().keySet().stream().filter(id -> !tests.existsById(id)).collect(Collectors.toSet());
        if (!unknownSuites.isEmpty() || !unknownTests.isEmpty()) {
            throw Problem.invalid(
                    "unknown-in-catalogue",
                    "The catalogue has no "
                            + (unknownSuites.isEmpty()
                                    ? "test " + unknownTests.iterator().next()
                                    : "suite " + unknownSuites.iterator().next())
                            + ".");
        }
        return new PurposeWeighing(w.groups(), withoutOnes(w.suites()), withoutOnes(w.tests()));
    }

    private static Map<Long, Double> withoutOnes(Map<Long, Double> weights) {
        return weights.entrySet().stream()
                .filter(e -> e.getValue() != 1)
                .collect(Collectors.toMap(Map.Entry::getKey, Map.Entry::getValue));
    }

    private static String words(Purpose p) {
        PurposeWeighing w = p.weighing();
        return p.name() + ": " + new TreeMap<>(w.groups())
                + (w.suites().isEmpty() ? "" : ", suites " + new TreeMap<>(w.suites()))
                + (w.tests().isEmpty() ? "" : ", tests " + new TreeMap<>(w.tests()));
    }

    static Map<TestGroup, Double> alike() {
        Map<TestGroup, Double> weights = new EnumMap<>(TestGroup.class);
        for (TestGroup group : TestGroup.values()) {
            weights.put(group, 1.0);
        }
        return weights;
    }
}
