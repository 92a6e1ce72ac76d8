package yarrowmark.server.access;

import java.time.Clock;
import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.Tokens;

/** Links that work once. */
@Service
class Invitations {
    /** @param token shown this once */
    record Made(long id, String token, Instant expiresAt) {}

    /**
     * @param name whose password it is for
     * @param keys how many keys for programs they have, of which is asked whether they end as well
     */
    record OpenOne(
            long id,
            @Nullable Role role,
            @Nullable String name,
            int keys,
            String madeBy,
            Instant madeAt,
            Instant expiresAt) {}

    private final InvitationRepository rows;
    private final PersonRepository persons;
    private final People people;
    private final ApiKeys keys;
    private final SecurityLog security;
    private final Clock clock;

    Invitations(
            InvitationRepository rows,
            PersonRepository persons,
            People people,
            ApiKeys keys,
            SecurityLog security,
            Clock clock) {
        this.rows = rows;
        this.persons = persons;
        this.people = people;
        this.keys = keys;
        this.security = security;
        this.clock = clock;
    }

    @Transactional
    public Made toJoin(Role role, String by) {
        String token = Tokens.fresh();
        Invitation made = rows.save(Invitation.toJoin(token, role, by, clock.instant()));
        security.note("invited somebody as " + role, by, "");
        return new Made(made.id(), token, made.expiresAt());
    }

    /** A link for a new password; one that was made earlier, and may lie around, ends. */
    @Transactional
    public Made toReset(long personId, String by) {
        Person person = people.held(personId);
        people.endResets(personId);
        String token = Tokens.fresh();
        Invitation made = rows.save(Invitation.toReset(token, personId, by, clock.instant()));
        security.note("made a link for a new password of " + person.name(), by, "");
        return new Made(made.id(), token, made.expiresAt());
    }

    @Transactional(readOnly = true)
    public List<OpenOne> open() {
        return rows.findByUsedAtIsNullAndExpiresAtAfterOrderByIdDesc(clock.instant()).stream()
                .map(this::shown)
                .toList();
    }

    @Transactional
    public void close(long id, String by) {
        Invitation found = rows.findById(id)
                .filter(i -> i.isOpen(clock.instant()))
                .orElseThrow(() -> Problem.notFound("open invitation", id));
        found.close(clock.instant());
        security.note("took an invitation back", by, "");
    }

    /** What a link is for. */
    @Transactional(readOnly = true)
    public OpenOne look(String token) {
        return shown(rows.findByTokenHash(Tokens.hash(token))
                .filter(i -> i.isOpen(clock.instant()))
                .orElseThrow(Invitations::noLonger));
    }

    /**
     * Follows a link: makes a person, or gives one a new password and signs them out everywhere.
     *
     * @param name of the new person; not looked at where a password is reset
     * @param endKeys whether the keys of whose password it is end as well; must be said where there are any
     */
    @Transactional
    public Person use(String token, @Nullable String name, String password, @Nullable Boolean endKeys) {
        Instant now = clock.instant();
        Invitation found = rows.findForUseByTokenHash(Tokens.hash(token))
                .filter(i -> i.isOpen(now))
                .orElseThrow(Invitations::noLonger);
        if (found.role() == null) {
            Person person = people.here(found.personId() == null ? 0 : found.personId());
            if (endKeys == null && keys.good(person.id()) > 0) {
                throw Problem.invalid("keys-too", "Say whether your keys for programs end with the old password.");
            }
            people.choosePassword(person.id(), password, null);
            found.use(now, person.id());
            if (Boolean.TRUE.equals(endKeys)) {
                keys.endAll(person.id());
                security.note("ended all keys with the old password", person.name(), "");
            }
            return person;
        }
        if (name == null || name.isBlank()) {
            throw Problem.invalid("no-name", "Say what you are called.");
        }
        Person person = people.join(name, password, found.role());
        found.use(now, person.id());
        security.note("joined as " + found.role(), person.name(), "");
        return person;
    }

    private OpenOne shown(Invitation i) {
        Long whose = i.role() == null ? i.personId() : null;
        return new OpenOne(
                i.id(),
                i.role(),
                whose == null ? null : persons.findById(whose).map(Person::name).orElse(null),
                whose == null ? 0 : keys.good(whose),
                i.madeBy(),
                i.madeAt(),
                i.expiresAt());
    }

    private static Problem noLonger() {
        return new Problem(
                HttpStatus.GONE,
                "link-used",
                "This link works once, and not for ever: it was used, taken back, or is too old. Ask an owner for another.");
    }
}
