package yarrowmark.server.ledger;

import java.util.Collection;
import java.util.Map;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What other features ask about sessions. */
@Service
public class LedgerSessions {
    private final SessionRepository sessions;

    LedgerSessions(SessionRepository sessions) {
        this.sessions = sessions;
    }

    /** Which configuration each of these sessions measured. */
    @Transactional(readOnly = true)
    public Map<Long, Long> configurations(Collection<Long> sessionIds) {
        return sessions.findAllById(sessionIds).stream().collect(Collectors.toMap(Session::id, Session::configurationId));
    }
}
