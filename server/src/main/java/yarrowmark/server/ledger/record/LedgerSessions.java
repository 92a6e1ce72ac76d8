package yarrowmark.server.ledger.record;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.Collection;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.function.LongPredicate;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.core.setup.SessionConditions;
import yarrowmark.server.platform.Problem;

/** What other features ask about sessions. */
@Service
public class LedgerSessions {
    private final SessionRepository sessions;
    private final RunRepository runs;

    LedgerSessions(SessionRepository sessions, RunRepository runs) {
        this.sessions = sessions;
        this.runs = runs;
    }

    /** @throws Problem where there is no such session, or the run is not one of it */
    @Transactional(readOnly = true)
    public void check(long sessionId, @Nullable Long runId) {
        if (!sessions.existsById(sessionId)) {
            throw Problem.notFound("session", sessionId);
        }
        if (runId != null
                && runs.findById(runId).filter(r -> r.sessionId() == sessionId).isEmpty()) {
            throw Problem.invalid("run-of-another-session", "Run " + runId + " is not one of this session.");
        }
    }

    /** What a person carries out in a session, in order. */
    @Transactional(readOnly = true)
    public List<Long> testsByHand(long sessionId) {
        return sessions
                .findById(sessionId)
                .orElseThrow(() -> Problem.notFound("session", sessionId))
                .testsByHand()
                .stream()
                .map(TestByHand::testId)
                .toList();
    }

    /** Which configuration each of these sessions measured. */
    @Transactional(readOnly = true)
    public Map<Long, Long> configurations(Collection<Long> sessionIds) {
        return sessions.findAllById(sessionIds).stream()
                .collect(Collectors.toMap(Session::id, Session::configurationId));
    }

    /** On which day each of these sessions began, in UTC. */
    @Transactional(readOnly = true)
    public Map<Long, LocalDate> daysOf(Set<Long> sessionIds) {
        return sessions.findAllById(sessionIds).stream()
                .collect(Collectors.toMap(Session::id, s -> LocalDate.ofInstant(s.startedAt(), ZoneOffset.UTC)));
    }

    /** How the sessions in which something was measured were powered, by configuration: on mains, or not, or both; absent where nobody said. */
    @Transactional(readOnly = true)
    public Map<Long, Set<Boolean>> power() {
        return sessions.findPower().stream()
                .collect(Collectors.groupingBy(
                        r -> (Long) r[0], Collectors.mapping(r -> (Boolean) r[1], Collectors.toSet())));
    }

    /** @param days on which a configuration was measured with a plan of this name. @param last the latest of them */
    public record MeasuredDays(String plan, long configurationId, int days, LocalDate last) {}

    /** On how many days what was measured with plans of these names. */
    @Transactional(readOnly = true)
    public List<MeasuredDays> days(Collection<String> plans) {
        return sessions.findMeasuredDays(plans).stream()
                .collect(Collectors.groupingBy(
                        r -> Map.entry((String) r[0], (Long) r[1]),
                        Collectors.mapping(
                                r -> LocalDate.ofInstant((Instant) r[2], ZoneOffset.UTC), Collectors.toSet())))
                .entrySet()
                .stream()
                .map(e -> new MeasuredDays(
                        e.getKey().getKey(), e.getKey().getValue(), e.getValue().size(), Collections.max(e.getValue())))
                .toList();
    }

    /** Conditions of the sessions that are taken and in which something was measured, by configuration. */
    @Transactional(readOnly = true)
    public Map<Long, List<SessionConditions>> conditions(Collection<Long> configurationIds, LongPredicate taken) {
        return sessions.findMeasured(configurationIds).stream()
                .filter(s -> taken.test(s.id()))
                .collect(Collectors.groupingBy(
                        Session::configurationId,
                        Collectors.mapping(
                                s -> new SessionConditions(
                                        Optional.ofNullable(s.onMains()),
                                        Optional.ofNullable(s.recording()),
                                        s.roomTemperature() == null
                                                ? OptionalDouble.empty()
                                                : OptionalDouble.of(s.roomTemperature()),
                                        s.startedAt()),
                                Collectors.toList())));
    }
}
