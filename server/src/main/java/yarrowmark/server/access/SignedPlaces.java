package yarrowmark.server.access;

import jakarta.annotation.PostConstruct;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.dao.DataAccessException;
import org.springframework.stereotype.Service;
import org.springframework.transaction.TransactionException;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.Tokens;
import yarrowmark.server.platform.http.AccessEnded;
import yarrowmark.server.platform.records.AfterCommit;
import yarrowmark.server.platform.records.Locks;

/**
 * The browsers in which people are signed in. Each request asks whether its own is still open, so the open ones are in
 * memory as well: whoever is signed out is out with the next request, and a role counts from the moment it is given.
 */
@Service
class SignedPlaces {
    private static final Logger LOG = LoggerFactory.getLogger(SignedPlaces.class);

    /** Even somebody who comes every day signs in again after this. */
    static final Duration LONGEST = Duration.ofDays(30);

    private static final Duration NOTED_EVERY = Duration.ofMinutes(5);
    /** Whoever has not come for twelve hours signs in again. */
    private static final Duration IDLE = Duration.ofHours(12).plus(NOTED_EVERY);

    /** Somebody at a place, as they are now. */
    record Open(long place, long personId, String name, Role role, Instant startedAt, Instant notedAt) {
        Open as(String otherName, Role otherRole) {
            return new Open(place, personId, otherName, otherRole, startedAt, notedAt);
        }

        Open notedAt(Instant at) {
            return new Open(place, personId, name, role, startedAt, at);
        }
    }

    /** A browser that has just signed in. @param token for its cookie; only its hash is kept */
    record Begun(long place, String token) {}

    private final Map<Long, Open> open = new ConcurrentHashMap<>();
    /** By the hash of their cookie's token. */
    private final Map<String, Long> byToken = new ConcurrentHashMap<>();

    private final SignedPlaceRepository places;
    private final PersonRepository people;
    private final Locks locks;
    private final ApplicationEventPublisher events;
    private final Clock clock;

    SignedPlaces(
            SignedPlaceRepository places,
            PersonRepository people,
            Locks locks,
            ApplicationEventPublisher events,
            Clock clock) {
        this.places = places;
        this.people = people;
        this.locks = locks;
        this.events = events;
        this.clock = clock;
    }

    /** Who is signed in stays so over a start of the program, however it ended. */
    @PostConstruct
    void remember() {
        for (SignedPlace p :
                places.findByEndedAtIsNullAndStartedAtAfter(clock.instant().minus(LONGEST))) {
            if (p.tokenHash() != null) {
                byToken.put(p.tokenHash(), p.id());
            }
            people.findByIdAndRemovedAtIsNull(p.personId())
                    .ifPresent(who -> open.put(
                            p.id(), new Open(p.id(), who.id(), who.name(), who.role(), p.startedAt(), p.lastAt())));
        }
    }

    /**
     * @param isStillRight whether what somebody proved themselves with is still theirs: it is asked while nobody can change it
     * @return empty where it is not any more
     */
    @Transactional
    public Optional<Begun> begin(
            long personId, String address, @Nullable String agent, Predicate<Person> isStillRight) {
        Person who = locks.lock(Person.class, personId)
                .filter(Person::isHere)
                .orElseThrow(() -> Problem.notFound("person", personId));
        if (!isStillRight.test(who)) {
            return Optional.empty();
        }
        Instant now = clock.instant();
        String token = Tokens.fresh();
        String hash = Tokens.hash(token);
        SignedPlace place =
                places.saveAndFlush(new SignedPlace(who.id(), hash, address, agent == null ? "" : agent, now));
        open.put(place.id(), new Open(place.id(), who.id(), who.name(), who.role(), now, now));
        byToken.put(hash, place.id());
        return Optional.of(new Begun(place.id(), token));
    }

    /** Who is in the browser with this token in its cookie, or null where nobody is any more. */
    @Nullable
    Open at(String token) {
        Long place = byToken.get(Tokens.hash(token));
        Open here = place == null ? null : open.get(place);
        if (place == null || here == null) {
            return null;
        }
        Instant now = clock.instant();
        if (isOver(here.startedAt(), here.notedAt(), now)) {
            return null;
        }
        if (now.isAfter(here.notedAt().plus(NOTED_EVERY))) {
            open.computeIfPresent(place, (id, o) -> o.notedAt(now));
            note(place, now);
        }
        return here;
    }

    private static boolean isOver(Instant started, Instant last, Instant now) {
        return now.isAfter(started.plus(LONGEST)) || now.isAfter(last.plus(IDLE));
    }

    private void note(long place, Instant now) {
        try {
            places.findById(place).ifPresent(p -> {
                p.seen(now);
                places.save(p);
            });
        } catch (DataAccessException | TransactionException e) {
            // Who comes is known without the records; when they were here last can wait.
            LOG.debug("when somebody was here last could not be noted", e);
        }
    }

    List<SignedPlace> of(long personId) {
        Instant now = clock.instant();
        return places.findByPersonIdAndEndedAtIsNullOrderByLastAtDesc(personId).stream()
                .filter(p -> open.containsKey(p.id()) && !isOver(p.startedAt(), p.lastAt(), now))
                .toList();
    }

    /** @param place of this person's own */
    @Transactional
    public void end(long personId, long place) {
        SignedPlace found = places.findById(place)
                .filter(p -> p.personId() == personId)
                .orElseThrow(() -> Problem.notFound("place where you are signed in", place));
        end(found);
    }

    /** Somebody signs out there. */
    @Transactional
    public void leave(long place) {
        places.findById(place).ifPresent(this::end);
    }

    /** @param but stays; null where none does */
    @Transactional
    public int endAll(long personId, @Nullable Long but) {
        List<SignedPlace> ended = places.findByPersonIdAndEndedAtIsNullOrderByLastAtDesc(personId).stream()
                .filter(p -> but == null || p.id() != but)
                .toList();
        ended.forEach(this::end);
        return ended.size();
    }

    private void end(SignedPlace place) {
        place.end(clock.instant());
        places.save(place);
        AfterCommit.run(() -> {
            open.remove(place.id());
            byToken.values().remove(place.id());
            events.publishEvent(new AccessEnded(AccessEnded.place(place.id())));
        });
    }

    /** What a person is called, or may do, is another thing from now on, wherever they are. */
    void changed(Person who) {
        AfterCommit.run(() -> open.replaceAll((id, o) -> o.personId() == who.id() ? o.as(who.name(), who.role()) : o));
    }
}
