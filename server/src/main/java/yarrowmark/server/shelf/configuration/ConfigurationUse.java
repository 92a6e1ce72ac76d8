package yarrowmark.server.shelf.configuration;

import java.util.Collection;
import java.util.Map;

/** How much hangs on a configuration. The shelf asks, the ledger knows. */
public interface ConfigurationUse {
    /** Sessions of each of these configurations; those without any are left out. */
    Map<Long, Integer> sessions(Collection<Long> configurationIds);
}
