package yarrowmark.server.standing;

import jakarta.persistence.Entity;
import jakarta.persistence.EntityManager;
import jakarta.persistence.Id;
import java.security.SecureRandom;
import java.time.Clock;
import java.time.Instant;
import java.util.Base64;
import java.util.List;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;
import yarrowmark.server.platform.ChangeLog;
import yarrowmark.server.platform.Page;
import yarrowmark.server.platform.Problem;

/** Standings as they were on a day, under an address that stays. Readers need no sign-in, only the address. */
@Service
class FrozenStandings {
    private static final SecureRandom RANDOM = new SecureRandom();
    private static final int KEY_BYTES = 18;
    private static final int LONGEST = 8_000_000;

    @Entity(name = "FrozenStanding")
    static class FrozenStanding {
        @Id
        @JdbcTypeCode(SqlTypes.CHAR)
        String frozenKey;

        String caption;

        @Nullable
        String title;

        @Nullable
        String words;

        @JdbcTypeCode(SqlTypes.LONG32VARCHAR)
        String answer;

        String person;
        Instant at;
    }

    /**
     * @param title   what the reviewer calls it
     * @param words   what the reviewer says of it
     * @param caption what the standing's sentence said
     */
    record Frozen(
            String key,
            @Nullable String title,
            @Nullable String words,
            String caption,
            Instant at,
            Standings standings) {}

    record FrozenRow(String key, @Nullable String title, String caption, Instant at, String person) {}

    private final EntityManager entities;
    private final JsonMapper json;
    private final ChangeLog changes;
    private final Clock clock;

    FrozenStandings(EntityManager entities, JsonMapper json, ChangeLog changes, Clock clock) {
        this.entities = entities;
        this.json = json;
        this.changes = changes;
        this.clock = clock;
    }

    @Transactional
    public FrozenRow freeze(
            @Nullable String title, @Nullable String words, String caption, Standings standings, String person) {
        FrozenStanding frozen = new FrozenStanding();
        byte[] bytes = new byte[KEY_BYTES];
        RANDOM.nextBytes(bytes);
        frozen.frozenKey = Base64.getUrlEncoder().withoutPadding().encodeToString(bytes);
        frozen.title = given(title);
        frozen.words = given(words);
        frozen.caption = caption.strip();
        frozen.answer = json.writeValueAsString(standings);
        if (frozen.answer.length() > LONGEST) {
            throw Problem.invalid(
                    "too-large-to-keep",
                    "This standing is too large to keep as a page. Narrow it down, to one class or the newest of each model.");
        }
        frozen.person = person;
        frozen.at = clock.instant();
        entities.persist(frozen);
        changes.note(person, "kept standing", 0, frozen.frozenKey, null, frozen.caption);
        return row(frozen);
    }

    @Transactional(readOnly = true)
    public Frozen read(String key) {
        FrozenStanding frozen = entities.find(FrozenStanding.class, key);
        if (frozen == null) {
            throw Problem.notFound("kept standing under this address", key.substring(0, Math.min(24, key.length())));
        }
        return new Frozen(
                frozen.frozenKey,
                frozen.title,
                frozen.words,
                frozen.caption,
                frozen.at,
                json.readValue(frozen.answer, Standings.class));
    }

    @Transactional(readOnly = true)
    public Page<FrozenRow> all(int page, int size) {
        List<FrozenRow> rows = entities
                .createQuery(
                        "select f.frozenKey, f.title, f.caption, f.at, f.person from FrozenStanding f order by f.at desc, f.frozenKey",
                        Object[].class)
                .setFirstResult(page * size)
                .setMaxResults(size)
                .getResultList()
                .stream()
                .map(r -> new FrozenRow((String) r[0], (String) r[1], (String) r[2], (Instant) r[3], (String) r[4]))
                .toList();
        return new Page<>(
                rows,
                page,
                size,
                entities.createQuery("select count(f) from FrozenStanding f", Long.class)
                        .getSingleResult());
    }

    @Transactional
    public void remove(String key, String person) {
        FrozenStanding frozen = entities.find(FrozenStanding.class, key);
        if (frozen == null) {
            throw Problem.notFound("kept standing under this address", key.substring(0, Math.min(24, key.length())));
        }
        changes.note(person, "kept standing", 0, key, frozen.caption, null);
        entities.remove(frozen);
    }

    private static @Nullable String given(@Nullable String text) {
        return text == null || text.isBlank() ? null : text.strip();
    }

    private static FrozenRow row(FrozenStanding f) {
        return new FrozenRow(f.frozenKey, f.title, f.caption, f.at, f.person);
    }
}
