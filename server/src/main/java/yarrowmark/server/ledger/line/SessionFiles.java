package yarrowmark.server.ledger.line;

import java.util.Collection;
import java.util.Map;

/** How many files were kept with sessions. The ledger does not know where files are kept; who keeps them answers. */
public interface SessionFiles {
    /** @return for each session that has any; the others are left out */
    Map<Long, Integer> count(Collection<Long> sessionIds);
}
