package yarrowmark.server.ledger.record;

import java.time.Instant;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.server.ledger.sample.ConditionsChanged;
import yarrowmark.server.platform.change.RecordsChanged;
import yarrowmark.server.platform.history.ChangeLog;
import yarrowmark.server.shelf.configuration.Configurations;

/** Opens sessions, ends them, and lets them go on. */
@Service
public class SessionLifecycle {
    private final SessionRepository sessions;
    private final Configurations configurations;
    private final ConfigurationLock sittings;
    private final ChangeLog changes;
    private final ApplicationEventPublisher events;
    private final Ledger ledger;

    SessionLifecycle(
            SessionRepository sessions,
            Configurations configurations,
            ConfigurationLock sittings,
            ChangeLog changes,
            ApplicationEventPublisher events,
            Ledger ledger) {
        this.sessions = sessions;
        this.configurations = configurations;
        this.sittings = sittings;
        this.changes = changes;
        this.events = events;
        this.ledger = ledger;
    }

    /** A session of a configuration that was merged into another one belongs to that. */
    @Transactional
    public long open(NewSession session) {
        boolean conditions = session.onMains() != null
                || Boolean.TRUE.equals(session.byHand().recording())
                || Boolean.TRUE.equals(session.byHand().otherWork());
        if (conditions) {
            events.publishEvent((RecordsChanged) new ConditionsChanged());
        }
        return sessions.save(new Session(configurations.resolveMerged(session.configurationId()), session))
                .id();
    }

    @Transactional
    public void end(long sessionId, SessionState how, Instant at) {
        Session session = sittings.session(sessionId);
        if (session.state() == SessionState.OPEN) {
            session.end(how, at);
            // One that was ended before it had everything does not count, and one that was left off and is done does.
            events.publishEvent((RecordsChanged) new ConditionsChanged());
        }
    }

    /** Somebody says whether a session that was never finished counts all the same. */
    @Transactional
    public void count(long sessionId, boolean anyway, String person) {
        Session session = sittings.session(sessionId);
        if (session.counts() != anyway) {
            session.count(anyway);
            changes.note(
                    person,
                    "session",
                    sessionId,
                    "counts although it was never finished",
                    anyway ? "no" : "yes",
                    anyway ? "yes" : "no");
            events.publishEvent((RecordsChanged) new ConditionsChanged());
        }
    }

    /** A session that was ended goes on, on the same configuration: a suite can take days. */
    @Transactional
    public void resume(long sessionId) {
        sittings.session(sessionId).resume();
        events.publishEvent((RecordsChanged) new ConditionsChanged());
    }

    @Transactional(readOnly = true)
    public SessionState state(long sessionId) {
        return ledger.session(sessionId).state();
    }
}
