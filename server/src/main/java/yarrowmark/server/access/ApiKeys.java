package yarrowmark.server.access;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.Tokens;
import yarrowmark.server.platform.http.AccessEnded;
import yarrowmark.server.platform.records.AfterCommit;

/** Keys for programs. Each is looked up with every request, so one that is taken back is worth nothing at once. */
@Service
class ApiKeys {
    static final String START = "ym_";
    private static final int MOST_DAYS = 730;
    private static final int MOST_OF_ONE = 50;
    private static final Duration NOTED_EVERY = Duration.ofMinutes(1);

    /** @param key shown this once */
    record MadeKey(long id, String key, Instant expiresAt) {}

    /** @param person whose it is */
    record KeyRow(
            long id,
            String name,
            ApiKey.Scope scope,
            String hint,
            String person,
            Instant madeAt,
            Instant expiresAt,
            @Nullable Instant lastAt,
            @Nullable String lastAddress) {}

    /** Who a key speaks for, and what it is good for. */
    record Holder(long keyId, String name, Role role, ApiKey.Scope scope, Instant expiresAt) {}

    private final ApiKeyRepository rows;
    private final PersonRepository people;
    private final SecurityLog security;
    private final ApplicationEventPublisher events;
    private final Clock clock;

    ApiKeys(
            ApiKeyRepository rows,
            PersonRepository people,
            SecurityLog security,
            ApplicationEventPublisher events,
            Clock clock) {
        this.rows = rows;
        this.people = people;
        this.security = security;
        this.events = events;
        this.clock = clock;
    }

    @Transactional
    public MadeKey make(long personId, String name, ApiKey.Scope scope, int days) {
        Person person =
                people.findByIdAndRemovedAtIsNull(personId).orElseThrow(() -> Problem.notFound("person", personId));
        if (days < 1 || days > MOST_DAYS) {
            throw Problem.invalid("key-days", "A key is good for 1 to " + MOST_DAYS + " days.");
        }
        if (person.role() == Role.READER && scope != ApiKey.Scope.READ) {
            throw Problem.invalid("key-scope", "A reader's key reads; it cannot do more than its reader.");
        }
        if (rows.findByPersonIdAndEndedAtIsNullOrderByIdDesc(personId).size() >= MOST_OF_ONE) {
            throw Problem.invalid(
                    "too-many-keys", "You have " + MOST_OF_ONE + " keys. Revoke those that are not used.");
        }
        String key = START + Tokens.fresh();
        Instant now = clock.instant();
        ApiKey made = rows.save(new ApiKey(name.strip(), scope, key, personId, now, now.plus(Duration.ofDays(days))));
        security.note("made the key “" + made.name() + "” for " + scope, person.name(), "");
        return new MadeKey(made.id(), key, made.expiresAt());
    }

    /** @param personId of one person, or null for everybody's */
    @Transactional(readOnly = true)
    public List<KeyRow> all(@Nullable Long personId) {
        List<ApiKey> found = personId == null
                ? rows.findByEndedAtIsNullOrderByIdDesc()
                : rows.findByPersonIdAndEndedAtIsNullOrderByIdDesc(personId);
        return found.stream()
                .map(k -> new KeyRow(
                        k.id(),
                        k.name(),
                        k.scope(),
                        k.hint(),
                        people.findById(k.personId()).map(Person::name).orElse(""),
                        k.madeAt(),
                        k.expiresAt(),
                        k.lastAt(),
                        k.lastAddress()))
                .toList();
    }

    /** @param personId whose it must be; null for an owner, who may end everybody's */
    @Transactional
    public void end(long id, @Nullable Long personId, String by) {
        ApiKey key = rows.findById(id)
                .filter(k -> !k.isEnded() && (personId == null || k.personId() == personId))
                .orElseThrow(() -> Problem.notFound("key", id));
        end(key);
        security.note("took back the key “" + key.name() + "”", by, "");
    }

    /** How many of somebody's let a program in now. */
    int good(long personId) {
        Instant now = clock.instant();
        return (int) rows.findByPersonIdAndEndedAtIsNullOrderByIdDesc(personId).stream()
                .filter(k -> k.isGood(now))
                .count();
    }

    void endAll(long personId) {
        rows.findByPersonIdAndEndedAtIsNullOrderByIdDesc(personId).forEach(this::end);
    }

    private void end(ApiKey key) {
        key.end(clock.instant());
        AfterCommit.run(() -> events.publishEvent(new AccessEnded(AccessEnded.key(key.id()))));
    }

    @Transactional
    public Optional<Holder> holder(String key, String address) {
        Instant now = clock.instant();
        return rows.findByKeyHashAndEndedAtIsNull(Tokens.hash(key))
                .filter(k -> k.isGood(now))
                .flatMap(k -> people.findByIdAndRemovedAtIsNull(k.personId()).map(who -> {
                    if (k.lastAt() == null || now.isAfter(k.lastAt().plus(NOTED_EVERY))) {
                        k.used(now, address);
                    }
                    return new Holder(k.id(), who.name(), who.role(), k.scope(), k.expiresAt());
                }));
    }
}
