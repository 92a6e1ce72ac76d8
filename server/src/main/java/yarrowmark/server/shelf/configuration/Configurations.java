package yarrowmark.server.shelf.configuration;

import static yarrowmark.server.platform.Require.require;

import java.time.Clock;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.core.setup.FactDifference;
import yarrowmark.core.setup.FactGroup;
import yarrowmark.core.setup.FactVocabulary;
import yarrowmark.core.setup.Fingerprint;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.history.ChangeLog;
import yarrowmark.server.platform.records.Locks;
import yarrowmark.server.shelf.model.ModelTouched;
import yarrowmark.server.shelf.model.Unit;
import yarrowmark.server.shelf.model.UnitRepository;

/** Configurations of units: made, copied and changed, corrected, picked, retired. */
@Service
public class Configurations {
    public static final String SUBJECT = "configuration";

    private final UnitRepository units;
    private final ConfigurationRepository configurations;
    private final ObjectProvider<ConfigurationUse> use;
    private final Locks locks;
    private final ChangeLog changes;
    private final ApplicationEventPublisher events;
    private final Clock clock;

    Configurations(
            UnitRepository units,
            ConfigurationRepository configurations,
            ObjectProvider<ConfigurationUse> use,
            Locks locks,
            ChangeLog changes,
            ApplicationEventPublisher events,
            Clock clock) {
        this.units = units;
        this.locks = locks;
        this.configurations = configurations;
        this.use = use;
        this.changes = changes;
        this.events = events;
        this.clock = clock;
    }

    /**
     * The unit's configuration as a device at the bench tells it: the one that is there with these facts; the newest,
     * filled, where it was prepared and never measured; else a new child of the newest. What a person had typed and the
     * device does not tell is kept, but for the room's conditions, which are those of a day. Where the device contradicts
     * something typed, its word is taken and the other one is kept beside it until the reviewer picks. Where it names one
     * of several graphics processors that are known, that one becomes the one that the tests used.
     */
    @Transactional
    public long configure(long unitId, List<GivenFact> told, @Nullable String name, String person) {
        // Two devices that are the same unit, or a form beside a device: the second finds what the first made.
        Unit unit = locks.lock(Unit.class, unitId).orElseThrow(() -> Problem.notFound("unit", unitId));
        Configuration newest = configurations
                .findFirstByUnitIdAndRetiredAtIsNullOrderByIdDesc(unitId)
                .orElse(null);
        Map<String, GivenFact> facts = ToldFacts.beside(newest == null ? Map.of() : given(newest), told);
        Optional<Configuration> same = withFacts(unitId, facts);
        if (same.isPresent()) {
            return same.get().id();
        }
        if (newest != null && sessions(locked(newest.id()).id()) == 0) {
            return fill(newest, facts, person);
        }
        return make(unit, newest, name, facts, person).id();
    }

    static Map<String, GivenFact> given(Configuration c) {
        Map<String, GivenFact> facts = new TreeMap<>();
        c.facts().forEach(f -> facts.put(f.key(), new GivenFact(f.key(), f.value(), f.source, f.otherValue)));
        return facts;
    }

    private long fill(Configuration prepared, Map<String, GivenFact> facts, String person) {
        noteFacts(prepared.id(), prepared.values(), facts, person);
        prepared.describe(facts);
        configurations.flush();
        touched(prepared);
        return prepared.id();
    }

    /** @param parentId the configuration it is copied from; null for one from nothing */
    @Transactional
    public long make(
            long unitId, @Nullable Long parentId, @Nullable String name, List<TypedFacts.Typed> typed, String person) {
        Unit unit = locks.lock(Unit.class, unitId).orElseThrow(() -> Problem.notFound("unit", unitId));
        Configuration parent = parentId == null ? null : withFacts(parentId);
        Map<String, GivenFact> facts = TypedFacts.read(typed, parent);
        withFacts(unitId, facts).ifPresent(same -> {
            throw Problem.conflict(
                            "same-facts",
                            "\"" + same.name()
                                    + "\" of this unit has exactly these facts already. Change one, or use that one.")
                    .with("configurationId", same.id());
        });
        // A copy for another unit of the model starts a tree of its own there.
        Configuration above = parent != null && parent.unit().id().equals(unitId) ? parent : null;
        String called = name != null && !name.isBlank()
                ? name
                : parent == null
                        ? null
                        : ConfigurationNames.suggest(parent.values(), GivenFact.values(facts), List.of());
        Configuration made = make(unit, above, called, facts, person);
        Set<String> changed = above == null ? Set.of() : changed(above.values(), GivenFact.values(facts));
        // Somebody who copies a configuration and changes one fact wants to know what that fact does.
        if (changed.size() == 1) {
            test(made.id(), changed, person);
        }
        return made.id();
    }

    /** Facts known of both that differ, but for those of the room, which are a day's. */
    static Set<String> changed(Map<String, String> before, Map<String, String> after) {
        Set<String> keys = new TreeSet<>(before.keySet());
        keys.retainAll(after.keySet());
        keys.removeIf(k -> require(before, k).equals(require(after, k))
                || FactVocabulary.entry(k).group() == FactGroup.ROOM);
        return keys;
    }

    /** The unit's configuration with exactly these facts, in base units; the newest where there are several. */
    @Transactional(readOnly = true)
    public Optional<Long> find(long unitId, Map<String, String> facts) {
        return configurations.findByUnitIdAndFingerprintOrderByIdDesc(unitId, Fingerprint.of(facts)).stream()
                .filter(c -> c.mergedInto() == null)
                .findFirst()
                .map(Configuration::id);
    }

    /** A configuration as another record describes it. @param facts in base units */
    @Transactional
    public long makeDescribed(long unitId, @Nullable String name, Map<String, String> facts, String person) {
        Unit unit = units.findById(unitId).orElseThrow(() -> Problem.notFound("unit", unitId));
        Map<String, GivenFact> given = new TreeMap<>();
        facts.forEach((k, v) -> given.put(k, new GivenFact(k, v, FactSource.TYPED)));
        return make(unit, null, name, given, person).id();
    }

    @Transactional
    public void rename(long id, String from, String to, String person) {
        // Two of a unit that are given one name at once: the second finds that the first has it.
        locks.lock(Unit.class, withFacts(id).unit().id());
        Configuration c = locked(id);
        if (!c.name().equals(from)) {
            throw Problem.conflict(
                            "changed-meanwhile",
                            "Somebody else renamed it to \"" + c.name() + "\" since you opened it.")
                    .with("now", c.name());
        }
        String name = to.strip();
        if (configurations.findSoCalled(c.unit().id(), name).stream()
                .anyMatch(other -> !other.id().equals(id))) {
            throw Problem.conflict(
                    "name-taken",
                    "Another configuration of this unit is called \"" + name
                            + "\" already. Say in the name what is different.");
        }
        changes.note(person, SUBJECT, id, "name", c.name(), name);
        c.rename(name);
        configurations.flush();
        touched(c);
    }

    @Transactional
    public void retire(long id, boolean retired, String person) {
        Configuration c = locked(id);
        if ((c.isRetired()) != retired) {
            changes.note(person, SUBJECT, id, "retired", c.isRetired(), retired);
            c.retire(retired ? clock.instant() : null);
            touched(c);
        }
    }

    /** Takes it out for good; only where nothing hangs on it. */
    @Transactional
    public void remove(long id, String person) {
        Configuration c = locked(id);
        refuseUsed(c);
        if (configurations.existsByParentId(id) || configurations.existsByMergedInto(id)) {
            throw Problem.conflict(
                    "has-children",
                    "Other configurations were copied from \"" + c.name()
                            + "\". Retire it instead: it then stays out of the way.");
        }
        changes.note(person, SUBJECT, id, "removed", c.name(), null);
        configurations.delete(c);
        touched(c);
    }

    @Transactional
    public void test(long id, Set<String> keys, String person) {
        Configuration c = locked(id);
        changes.note(person, SUBJECT, id, "change under test", labels(c.tested()), labels(keys));
        c.tested().clear();
        c.tested().addAll(keys);
        configurations.flush();
    }

    private static String labels(Collection<String> keys) {
        return keys.stream().map(k -> FactVocabulary.entry(k).label()).collect(Collectors.joining(", "));
    }

    /** For the ledger, which has moved the sessions: the emptied one leaves the shelf and says where they are. */
    @Transactional
    public void merged(long from, long into, String person) {
        Configuration gone = locked(from);
        gone.mergeInto(into, clock.instant());
        changes.note(person, SUBJECT, from, "merged into", null, into);
        touched(gone);
    }

    /** Waits for the configuration. @return where it is: the one itself, or the one it was merged into meanwhile */
    @Transactional
    public long resolveMerged(long id) {
        Configuration c = locked(id);
        Set<Long> seen = new HashSet<>();
        while (c.mergedInto() != null && seen.add(c.id())) {
            c = locked(c.mergedInto());
        }
        return c.id();
    }

    /** @throws Problem unless both are of one unit and have the same facts */
    @Transactional(readOnly = true)
    public void checkSame(long one, long other) {
        Configuration a = withFacts(one);
        Configuration b = withFacts(other);
        if (one == other
                || !a.unit().id().equals(b.unit().id())
                || !a.fingerprint().equals(b.fingerprint())
                || a.mergedInto() != null
                || b.mergedInto() != null) {
            throw Problem.conflict(
                    "not-the-same",
                    "Only two configurations of one unit with equal facts can be merged. These differ"
                            + (a.unit().id().equals(b.unit().id()) ? "." : " in their unit."));
        }
    }

    private List<Map<String, String>> siblings(Unit unit) {
        return configurations.findFirst20ByUnitIdAndRetiredAtIsNullOrderByIdDesc(unit.id()).stream()
                .filter(c -> c.mergedInto() == null)
                .map(Configuration::values)
                .toList();
    }

    private Configuration make(
            Unit unit,
            @Nullable Configuration parent,
            @Nullable String name,
            Map<String, GivenFact> facts,
            String person) {
        String called = name != null
                ? name
                : ConfigurationNames.suggest(
                        parent == null ? null : parent.values(), GivenFact.values(facts), siblings(unit));
        String free = ConfigurationNames.unused(
                called.strip(), GivenFact.values(facts), n -> configurations.findSoCalled(unit.id(), n).stream()
                        .findFirst()
                        .map(Configuration::values));
        Configuration made = new Configuration(unit, parent, free, clock.instant());
        made.describe(facts);
        configurations.saveAndFlush(made);
        changes.note(person, SUBJECT, made.id(), ChangeLog.MADE, null, made.name());
        touched(made);
        return made;
    }

    /** The newest that is neither retired nor merged away. */
    private Optional<Configuration> withFacts(long unitId, Map<String, GivenFact> facts) {
        return configurations
                .findByUnitIdAndFingerprintOrderByIdDesc(unitId, Fingerprint.of(GivenFact.values(facts)))
                .stream()
                .filter(c -> c.mergedInto() == null && !c.isRetired())
                .findFirst();
    }

    void noteFacts(long id, Map<String, String> before, Map<String, GivenFact> after, String person) {
        for (FactDifference d : FactDifference.between(before, GivenFact.values(after))) {
            changes.note(
                    person,
                    SUBJECT,
                    id,
                    d.key().key(),
                    d.before().orElse(null),
                    d.after().orElse(null));
        }
    }

    void refuseUsed(Configuration c) {
        int sessions = sessions(c.id());
        if (sessions > 0) {
            throw Problem.conflict(
                    "has-readings",
                    "\"" + c.name() + "\" was measured in " + sessions + (sessions == 1 ? " session" : " sessions")
                            + ", so its facts stay. Save your changes as a new configuration, or correct a fact that was wrong all along.");
        }
    }

    public int sessions(long id) {
        ConfigurationUse ledger = use.getIfAvailable();
        return ledger == null ? 0 : ledger.sessions(List.of(id)).getOrDefault(id, 0);
    }

    public Map<Long, Integer> sessions(Collection<Long> ids) {
        ConfigurationUse ledger = use.getIfAvailable();
        return ledger == null || ids.isEmpty() ? Map.of() : ledger.sessions(ids);
    }

    private Configuration withFacts(long id) {
        return configurations.findWithFactsById(id).orElseThrow(() -> Problem.notFound(SUBJECT, id));
    }

    Configuration locked(long id) {
        return locks.lock(Configuration.class, id).orElseThrow(() -> Problem.notFound(SUBJECT, id));
    }

    void touched(Configuration c) {
        events.publishEvent(new ModelTouched(c.unit().model().id()));
    }
}
