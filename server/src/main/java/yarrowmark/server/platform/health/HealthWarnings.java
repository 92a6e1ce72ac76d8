package yarrowmark.server.platform.health;

import java.util.List;

/** Something is wrong with the records that somebody has to know of, and that stops nothing. */
public interface HealthWarnings {
    /** In sentences; empty while all is well. */
    List<String> noticed();
}
