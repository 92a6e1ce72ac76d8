package yarrowmark.server.shelf.configuration;

import static yarrowmark.server.platform.Require.require;

import jakarta.persistence.EntityManager;
import java.time.Clock;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.core.setup.FactText;
import yarrowmark.core.setup.FactVocabulary;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.history.ChangeLog;
import yarrowmark.server.platform.history.Undoable;

/**
 * Facts of a configuration that is there: changed while nothing was measured, corrected with a reason after, and picked
 * where two sources disagree.
 */
@Service
public class ConfigurationFacts {
    private final ConfigurationRepository records;
    private final EntityManager entities;
    private final ChangeLog changes;
    private final ApplicationEventPublisher events;
    private final Clock clock;
    private final Configurations configurations;

    ConfigurationFacts(
            ConfigurationRepository records,
            EntityManager entities,
            ChangeLog changes,
            ApplicationEventPublisher events,
            Clock clock,
            Configurations configurations) {
        this.records = records;
        this.entities = entities;
        this.changes = changes;
        this.events = events;
        this.clock = clock;
        this.configurations = configurations;
    }

    /**
     * Changes facts in place, as long as nothing was measured.
     *
     * @param seen fingerprint of the facts the person saw
     */
    @Transactional
    public void change(long id, String seen, List<TypedFacts.Typed> typed, String person) {
        Configuration c = configurations.locked(id);
        configurations.refuseUsed(c);
        refuseOutdated(c, seen);
        Map<String, GivenFact> facts = TypedFacts.read(typed, c);
        configurations.noteFacts(id, c.values(), facts, person);
        c.describe(facts);
        records.flush();
        configurations.touched(c);
    }

    /** Takes a change of facts back, as long as nothing was measured and they are still as the change left them. */
    @Transactional
    public void putBack(long id, List<Undoable.Noted> noted, String person) {
        Configuration c = configurations.locked(id);
        configurations.refuseUsed(c);
        Map<String, GivenFact> facts = Configurations.given(c);
        for (Undoable.Noted n : noted) {
            GivenFact now = facts.get(n.field());
            if (!java.util.Objects.equals(now == null ? null : now.value(), n.to())) {
                throw Problem.conflict(
                        "changed-meanwhile",
                        "The facts are no longer as this change left them, so it cannot be taken back.");
            }
            if (n.from() == null) {
                facts.remove(n.field());
            } else {
                facts.put(n.field(), new GivenFact(n.field(), n.from(), FactSource.TYPED));
            }
        }
        configurations.noteFacts(id, c.values(), facts, person);
        c.describe(facts);
        records.flush();
        configurations.touched(c);
    }

    /** A fact of the past was described wrongly. @param text as typed; null where it should not be there at all */
    @Transactional
    public void correct(long id, String seen, String key, @Nullable String text, String reason, String person) {
        Configuration c = configurations.locked(id);
        refuseOutdated(c, seen);
        String value = text == null || text.isBlank()
                ? null
                : require(TypedFacts.read(List.of(new TypedFacts.Typed(key, text, false)), null), key)
                        .value();
        String old = c.fact(key).map(Fact::value).orElse(null);
        if (java.util.Objects.equals(old, value)) {
            throw Problem.invalid("same-value", "That is what is stored already; there is nothing to correct.");
        }
        correct(c, key, value, FactSource.TYPED, reason.strip(), person);
    }

    /** Settles a contradiction. @param other whether the value that stood aside is the right one */
    @Transactional
    public void pick(long id, String key, boolean other, String person) {
        Configuration c = configurations.locked(id);
        Fact fact = c.fact(key)
                .filter(f -> f.otherValue != null)
                .orElseThrow(() -> Problem.conflict("nothing-to-pick", "Nobody contradicts this fact any more."));
        String taken = fact.otherValue;
        fact.otherValue = null;
        if (other) {
            correct(
                    c,
                    key,
                    taken,
                    FactSource.TYPED,
                    "The reviewer picked the typed value over the detected one",
                    person);
        } else {
            changes.note(
                    person, Configurations.SUBJECT, id, "picked: " + key, "detected and typed differed", fact.value());
            records.flush();
        }
    }

    void correct(Configuration c, String key, @Nullable String value, FactSource source, String reason, String person) {
        Optional<Fact> fact = c.fact(key);
        FactCorrection correction = new FactCorrection();
        correction.configurationId = c.id();
        correction.factKey = key;
        correction.oldValue = fact.map(Fact::value).orElse(null);
        correction.newValue = value;
        correction.reason = reason;
        correction.person = person;
        correction.at = clock.instant();
        entities.persist(correction);
        Map<String, GivenFact> facts = Configurations.given(c);
        if (value == null) {
            facts.remove(key);
        } else {
            facts.put(key, new GivenFact(key, value, source));
        }
        c.describe(facts);
        records.flush();
        changes.note(person, Configurations.SUBJECT, c.id(), "correction: " + key, correction.oldValue, value, reason);
        events.publishEvent(new FactCorrected(c.id(), key));
        configurations.touched(c);
    }

    private static void refuseOutdated(Configuration c, String seen) {
        if (!c.fingerprint().equals(seen)) {
            throw Problem.conflict(
                            "changed-meanwhile",
                            "Somebody else changed these facts since you opened them. What you typed is still here: look at both, then save again.")
                    .with(
                            "facts",
                            c.values().entrySet().stream()
                                    .map(f -> Map.of(
                                            "key",
                                            f.getKey(),
                                            "shown",
                                            FactText.of(FactVocabulary.entry(f.getKey()), f.getValue())))
                                    .toList())
                    .with("fingerprint", c.fingerprint());
        }
    }
}
