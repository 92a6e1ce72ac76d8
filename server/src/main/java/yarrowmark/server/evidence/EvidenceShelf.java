package yarrowmark.server.evidence;

import jakarta.persistence.EntityManager;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.core.rule.PrintedText;
import yarrowmark.server.files.Files;
import yarrowmark.server.ledger.line.SessionFiles;
import yarrowmark.server.ledger.record.LedgerSessions;
import yarrowmark.server.ledger.record.OutputCame;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.history.ChangeLog;

/** Keeps what proves a score. Nothing is deleted: what was removed can be put back. */
@Service
public class EvidenceShelf implements SessionFiles {
    private static final int LONGEST_NAME = 200;
    private static final int MOST_PER_SESSION = 500;
    private static final String DEVICE = "device at the bench";

    /** @param runId absent where it belongs to the whole session. @param contentType as the file's beginning tells */
    record EvidenceRow(
            long id,
            long sessionId,
            @Nullable Long runId,
            String name,
            String contentType,
            long sizeBytes,
            String person,
            Instant at,
            boolean removed) {}

    record Opened(EvidenceRow row, byte[] bytes) {}

    private final EntityManager entities;
    private final Files files;
    private final LedgerSessions sessions;
    private final ChangeLog changes;
    private final Clock clock;

    EvidenceShelf(EntityManager entities, Files files, LedgerSessions sessions, ChangeLog changes, Clock clock) {
        this.entities = entities;
        this.files = files;
        this.sessions = sessions;
        this.changes = changes;
        this.clock = clock;
    }

    /** @param givenName as the device calls the file; whatever path it has is not believed. @return its id */
    @Transactional
    public long keep(long sessionId, @Nullable Long runId, String givenName, byte[] bytes, String person) {
        sessions.check(sessionId, runId);
        if (of(sessionId).size() >= MOST_PER_SESSION) {
            throw Problem.conflict("too-much-evidence", "This session has " + MOST_PER_SESSION + " files already.");
        }
        Evidence e = new Evidence();
        e.sessionId = sessionId;
        e.runId = runId;
        e.hash = files.keepFile(bytes);
        e.name = plainName(givenName);
        e.sizeBytes = bytes.length;
        e.person = person;
        e.at = clock.instant();
        entities.persist(e);
        changes.note(person, "session", sessionId, "evidence", null, e.name);
        return e.id;
    }

    /** What a command printed proves its time; where a session is full of files, the score is worth more than its proof. */
    @EventListener
    void keepOutput(OutputCame came) {
        if (of(came.sessionId()).size() < MOST_PER_SESSION) {
            keep(
                    came.sessionId(),
                    came.runId(),
                    "output of run " + came.runNumber() + ".txt",
                    PrintedText.of(came.output()).noted().getBytes(StandardCharsets.UTF_8),
                    DEVICE);
        }
    }

    /** The last part of any path, without what a file system or a header could take for more than a name. */
    static String plainName(String given) {
        String last = given.substring(Math.max(given.lastIndexOf('/'), given.lastIndexOf('\\')) + 1);
        String plain = last.replaceAll("[\\p{Cc}\\p{Cf}\"<>|:*?]", "").strip();
        plain = plain.length() > LONGEST_NAME ? plain.substring(plain.length() - LONGEST_NAME) : plain;
        return plain.isEmpty() || plain.matches("\\.+") ? "file" : plain;
    }

    @Override
    @Transactional(readOnly = true)
    public Map<Long, Integer> count(Collection<Long> sessionIds) {
        return sessionIds.isEmpty()
                ? Map.of()
                : entities
                        .createQuery(
                                "select e.sessionId, count(e) from Evidence e where e.sessionId in :sessions and e.removedAt is null group by e.sessionId",
                                Object[].class)
                        .setParameter("sessions", sessionIds)
                        .getResultList()
                        .stream()
                        .collect(Collectors.toMap(r -> (Long) r[0], r -> ((Long) r[1]).intValue()));
    }

    @Transactional(readOnly = true)
    List<EvidenceRow> of(long sessionId) {
        return entities
                .createQuery(
                        "select e from Evidence e where e.sessionId = :session and e.removedAt is null order by e.id",
                        Evidence.class)
                .setParameter("session", sessionId)
                .getResultList()
                .stream()
                .map(this::row)
                .toList();
    }

    @Transactional(readOnly = true)
    Opened open(long id) {
        Evidence e = evidence(id);
        return new Opened(row(e), files.file(e.hash).bytes());
    }

    @Transactional
    void remove(long id, boolean removed, String person) {
        Evidence e = evidence(id);
        if (removed != (e.removedAt != null)) {
            changes.note(person, "session", e.sessionId, "evidence", removed ? e.name : null, removed ? null : e.name);
            e.removedAt = removed ? clock.instant() : null;
            e.removedBy = removed ? person : null;
        }
    }

    private EvidenceRow row(Evidence e) {
        return new EvidenceRow(
                e.id,
                e.sessionId,
                e.runId,
                e.name,
                files.contentType(e.hash),
                e.sizeBytes,
                e.person,
                e.at,
                e.removedAt != null);
    }

    private Evidence evidence(long id) {
        Evidence e = entities.find(Evidence.class, id);
        if (e == null) {
            throw Problem.notFound("evidence", id);
        }
        return e;
    }
}
