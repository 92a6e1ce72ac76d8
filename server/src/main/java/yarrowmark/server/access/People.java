package yarrowmark.server.access;

import java.time.Clock;
import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.userdetails.User;
import org.springframework.security.core.userdetails.UserDetails;
import org.springframework.security.core.userdetails.UserDetailsPasswordService;
import org.springframework.security.core.userdetails.UserDetailsService;
import org.springframework.security.core.userdetails.UsernameNotFoundException;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.history.ChangeLog;
import yarrowmark.server.platform.records.Locks;
import yarrowmark.server.platform.records.Settings;

/** The people of this shelf, and the name of their lab. */
@Service
public class People implements UserDetailsService, UserDetailsPasswordService {
    private static final String LAB = "lab.name";
    private static final String SUBJECT = "person";

    private final PersonRepository people;
    private final FormerNameRepository former;
    private final SignedPlaces places;
    private final ApiKeys keys;
    private final InvitationRepository invitations;
    private final PasswordRules rules;
    private final PasswordEncoder encoder;
    private final Settings settings;
    private final Locks locks;
    private final ChangeLog log;
    private final SecurityLog security;
    private final Clock clock;

    People(
            PersonRepository people,
            FormerNameRepository former,
            SignedPlaces places,
            ApiKeys keys,
            InvitationRepository invitations,
            PasswordRules rules,
            PasswordEncoder encoder,
            Settings settings,
            Locks locks,
            ChangeLog log,
            SecurityLog security,
            Clock clock) {
        this.people = people;
        this.former = former;
        this.places = places;
        this.keys = keys;
        this.invitations = invitations;
        this.rules = rules;
        this.encoder = encoder;
        this.settings = settings;
        this.locks = locks;
        this.log = log;
        this.security = security;
        this.clock = clock;
    }

    /** @param lastAt when they were here last, as far as their open places tell; for owners only */
    record PersonRow(long id, String name, Role role, @Nullable Instant madeAt, int places, @Nullable Instant lastAt) {}

    @Transactional(readOnly = true)
    public boolean hasOwner() {
        return people.count() > 0;
    }

    public String labName() {
        return settings.get(LAB).orElse("Your lab");
    }

    /**
     * Makes the first person. Of two first visitors one becomes the owner: the database holds one place for it, and
     * whoever finds it taken looks again.
     *
     * @throws Problem when there is an owner already
     */
    @Transactional
    public void makeOwner(String name, String password, String lab) {
        if (hasOwner()) {
            throw Problem.conflict(
                    "owner-exists", "This shelf has an owner already. Sign in, or ask the owner for an account.");
        }
        rules.check(password, name, lab);
        people.saveAndFlush(Person.first(name.strip(), encoder.encode(password), clock.instant()));
        settings.put(LAB, lab.strip());
    }

    /** Somebody who was invited. */
    @Transactional
    Person join(String name, String password, Role role) {
        String free = free(name);
        rules.check(password, free, labName());
        Person person = people.saveAndFlush(new Person(free, role, encoder.encode(password), clock.instant()));
        log.note(free, SUBJECT, person.id(), "joined", null, role.name());
        return person;
    }

    @Transactional(readOnly = true)
    public List<PersonRow> all(boolean withPlaces) {
        return people.findByRemovedAtIsNullOrderByName().stream()
                .map(p -> {
                    List<SignedPlace> open = withPlaces ? places.of(p.id()) : List.of();
                    return new PersonRow(
                            p.id(),
                            p.name(),
                            p.role(),
                            p.madeAt(),
                            open.size(),
                            open.isEmpty() ? null : open.get(0).lastAt());
                })
                .toList();
    }

    Person here(long id) {
        return people.findByIdAndRemovedAtIsNull(id).orElseThrow(() -> Problem.notFound("person", id));
    }

    /** Until the transaction ends: who signs in meanwhile waits, and then is whoever this makes them. */
    Person held(long id) {
        return locks.lock(Person.class, id).filter(Person::isHere).orElseThrow(() -> Problem.notFound("person", id));
    }

    Person named(String name) {
        return people.findByNameAndRemovedAtIsNull(name).orElseThrow(() -> Problem.notFound("person", name));
    }

    /** The hash of somebody's password as it is now; empty where nobody has this name. */
    String hashOf(String name) {
        return people.findByNameAndRemovedAtIsNull(name)
                .map(Person::passwordHash)
                .orElse("");
    }

    boolean isPassword(Person person, String password) {
        return encoder.matches(password, person.passwordHash());
    }

    @Transactional
    public void become(long id, Role role, String by) {
        List<Person> owners = people.lockOwners();
        Person person = held(id);
        if (person.role() == role) {
            return;
        }
        if (person.role() == Role.OWNER) {
            keepOne(owners, "Make somebody else an owner first: a shelf without one could not be looked after.");
        }
        log.note(by, SUBJECT, id, "role", person.role().name(), role.name());
        security.note("role of " + person.name() + " is " + role, by, "");
        person.become(role);
        places.changed(person);
    }

    /** What they did keeps their name. */
    @Transactional
    public void remove(long id, String by) {
        List<Person> owners = people.lockOwners();
        Person person = held(id);
        if (person.role() == Role.OWNER) {
            keepOne(owners, "The last owner cannot leave. Make somebody else an owner first.");
        }
        person.remove(clock.instant());
        places.endAll(id, null);
        keys.endAll(id);
        endResets(id);
        log.note(by, SUBJECT, id, "removed", person.name(), null);
        security.note("removed " + person.name(), by, "");
    }

    private static void keepOne(List<Person> owners, String words) {
        if (owners.size() < 2) {
            throw Problem.conflict("last-owner", words);
        }
    }

    @Transactional
    public void rename(long id, String to) {
        Person person = held(id);
        if (to.strip().equals(person.name())) {
            return;
        }
        String next = former.findById(to.strip())
                .filter(f -> f.personId() == id)
                .map(f -> to.strip())
                .orElseGet(() -> free(to));
        former.deleteAll(former.findById(next).stream().toList());
        former.save(new FormerName(person.name(), id));
        log.note(next, SUBJECT, id, "name", person.name(), next);
        security.note("is called " + next + " now", person.name(), "");
        person.rename(next);
        places.changed(person);
    }

    private String free(String name) {
        String next = name.strip();
        if (people.existsByName(next) || former.existsById(next)) {
            throw Problem.conflict(
                    "name-taken",
                    "Somebody here has this name, or had it: what was done under it is theirs. Take another.");
        }
        return next;
    }

    /** No link for a new password that was made before works any more. */
    void endResets(long id) {
        invitations.findByRoleIsNullAndPersonIdAndUsedAtIsNull(id).forEach(i -> i.close(clock.instant()));
    }

    /** Signs out everywhere else. @param here stays signed in; null where nothing does */
    @Transactional
    public void choosePassword(long id, String password, @Nullable Long here) {
        Person person = held(id);
        rules.check(password, person.name(), labName());
        person.passwordHash(encoder.encode(password));
        places.endAll(id, here);
        endResets(id);
        security.note("chose a new password", person.name(), "");
    }

    /** @throws Problem where it is not theirs */
    @Transactional(readOnly = true)
    public void confirm(long id, String password) {
        if (!encoder.matches(password, here(id).passwordHash())) {
            throw new Problem(HttpStatus.FORBIDDEN, "wrong-password", "This is not your password of now.");
        }
    }

    @Override
    @Transactional(readOnly = true)
    public UserDetails loadUserByUsername(String name) {
        Person person = people.findByNameAndRemovedAtIsNull(name)
                .orElseThrow(() -> new UsernameNotFoundException("no such person"));
        return User.withUsername(person.name())
                .password(person.passwordHash())
                .roles(person.role().name())
                .build();
    }

    /** A password that was kept in an older way is kept in today's, once it was right. */
    @Override
    @Transactional
    public UserDetails updatePassword(UserDetails who, @Nullable String hash) {
        if (hash != null) {
            // Unless another one was chosen meanwhile.
            people.findByNameAndRemovedAtIsNull(who.getUsername())
                    .flatMap(p -> locks.lock(Person.class, p.id()))
                    .filter(p -> p.passwordHash().equals(who.getPassword()))
                    .ifPresent(p -> p.passwordHash(hash));
        }
        return loadUserByUsername(who.getUsername());
    }
}
