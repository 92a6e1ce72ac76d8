package yarrowmark.server.standing;

import jakarta.persistence.Entity;
import jakarta.persistence.EntityManager;
import jakarta.persistence.Id;
import jakarta.persistence.TypedQuery;
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
import yarrowmark.server.platform.Page;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.history.ChangeLog;

/**
 * Standings that were saved, under an address that stays: as they were on a day, or as they are whenever somebody looks.
 * Readers need no sign-in, only the address.
 */
@Service
public class FrozenStandings {
    private static final SecureRandom RANDOM = new SecureRandom();
    private static final int KEY_BYTES = 18;
    private static final int MOST_LISTED = 200;
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

        /** On the lab's front page. */
        boolean listed;

        /** Shows what is measured now: its answer is that of the day it was saved, and is not shown. */
        boolean living;

        /** What was asked, as JSON; null in those of before it was kept. */
        @JdbcTypeCode(SqlTypes.LONG32VARCHAR)
        @Nullable
        String ask;

        String person;
        Instant at;
    }

    /**
     * How it is saved.
     *
     * @param title   what the reviewer calls it
     * @param words   what the reviewer says of it
     * @param caption what the standing's sentence says
     */
    record Saved(@Nullable String title, @Nullable String words, String caption, boolean listed, boolean living) {}

    /**
     * @param title   what the reviewer calls it
     * @param words   what the reviewer says of it
     * @param caption what the standing's sentence said
     * @param at      when it was saved, or asked where it is a living one
     */
    public record Frozen(
            String key,
            @Nullable String title,
            @Nullable String words,
            String caption,
            Instant at,
            boolean living,
            Standings standings) {}

    public record FrozenRow(
            String key,
            @Nullable String title,
            String caption,
            Instant at,
            String person,
            boolean listed,
            boolean living) {}

    private final EntityManager entities;
    private final StandingsService standings;
    private final JsonMapper json;
    private final ChangeLog changes;
    private final Clock clock;

    FrozenStandings(
            EntityManager entities, StandingsService standings, JsonMapper json, ChangeLog changes, Clock clock) {
        this.entities = entities;
        this.standings = standings;
        this.json = json;
        this.changes = changes;
        this.clock = clock;
    }

    @Transactional
    FrozenRow freeze(StandingsAsk ask, Saved how, String person) {
        FrozenStanding frozen = new FrozenStanding();
        byte[] bytes = new byte[KEY_BYTES];
        RANDOM.nextBytes(bytes);
        frozen.frozenKey = Base64.getUrlEncoder().withoutPadding().encodeToString(bytes);
        frozen.title = given(how.title());
        frozen.words = given(how.words());
        frozen.caption = how.caption().strip();
        frozen.answer = json.writeValueAsString(standings.shown(ask));
        if (frozen.answer.length() > LONGEST) {
            throw Problem.invalid(
                    "too-large-to-keep",
                    "This standing is too large to keep as a page. Narrow it down, to one class or the newest of each model.");
        }
        frozen.listed = how.listed();
        frozen.living = how.living();
        frozen.ask = json.writeValueAsString(ask);
        frozen.person = person;
        frozen.at = clock.instant();
        entities.persist(frozen);
        changes.note(person, "kept standing", 0, frozen.frozenKey, null, frozen.caption);
        return row(frozen);
    }

    /**
     * One that follows what is measured, and whose question has no answer any more, is shown as it was: without a transaction
     * of its own around both, as the question that fails would end that.
     */
    public Frozen read(String key) {
        FrozenStanding frozen = entities.find(FrozenStanding.class, key);
        if (frozen == null) {
            throw Problem.notFound("kept standing under this address", key.substring(0, Math.min(24, key.length())));
        }
        Standings living = frozen.living && frozen.ask != null ? now(frozen.ask) : null;
        boolean now = living != null;
        return new Frozen(
                frozen.frozenKey,
                frozen.title,
                frozen.words,
                frozen.caption,
                now ? clock.instant() : frozen.at,
                now,
                living != null ? living : json.readValue(frozen.answer, Standings.class));
    }

    private @Nullable Standings now(String ask) {
        try {
            return standings.shown(json.readValue(ask, StandingsAsk.class));
        } catch (Problem e) {
            return null;
        }
    }

    /** Those on the front page. */
    @Transactional(readOnly = true)
    public List<FrozenRow> listed() {
        return rows(" where f.listed = true").setMaxResults(MOST_LISTED).getResultList().stream()
                .map(FrozenStandings::row)
                .toList();
    }

    /** Without their answers, which are large. */
    private TypedQuery<Object[]> rows(String where) {
        return entities.createQuery(
                "select f.frozenKey, f.title, f.caption, f.at, f.person, f.listed, f.living from FrozenStanding f"
                        + where + " order by f.at desc, f.frozenKey",
                Object[].class);
    }

    private static FrozenRow row(Object[] r) {
        return new FrozenRow(
                (String) r[0], (String) r[1], (String) r[2], (Instant) r[3], (String) r[4], (Boolean) r[5], (Boolean)
                        r[6]);
    }

    /** @throws Problem where it is to be a living one and what it was asked is not known */
    @Transactional
    public void change(String key, boolean listed, boolean living, String person) {
        FrozenStanding frozen = entities.find(FrozenStanding.class, key);
        if (frozen == null) {
            throw Problem.notFound("kept standing under this address", key.substring(0, Math.min(24, key.length())));
        }
        if (living && frozen.ask == null) {
            throw Problem.invalid(
                    "question-not-kept",
                    "This standing was saved before its question was kept with it, so it stays as it was. Save it anew to have one that follows.");
        }
        note(person, key, "listed", frozen.listed, listed);
        note(person, key, "living", frozen.living, living);
        frozen.listed = listed;
        frozen.living = living;
    }

    private void note(String person, String key, String what, boolean before, boolean now) {
        if (before != now) {
            changes.note(person, "kept standing", 0, key + " " + what, String.valueOf(before), String.valueOf(now));
        }
    }

    @Transactional(readOnly = true)
    public Page<FrozenRow> all(int page, int size) {
        List<FrozenRow> rows = rows("").setFirstResult(page * size).setMaxResults(size).getResultList().stream()
                .map(FrozenStandings::row)
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
        return new FrozenRow(f.frozenKey, f.title, f.caption, f.at, f.person, f.listed, f.living);
    }
}
