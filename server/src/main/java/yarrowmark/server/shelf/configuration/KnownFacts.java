package yarrowmark.server.shelf.configuration;

import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What calculations need to know of configurations. */
@Service
public class KnownFacts {
    private final ConfigurationRepository configurations;

    KnownFacts(ConfigurationRepository configurations) {
        this.configurations = configurations;
    }

    /** A quantity in its base unit; null where it is not known, or no number. */
    @Transactional(readOnly = true)
    public @Nullable Double quantity(long configurationId, String key) {
        return number(of(List.of(configurationId))
                .getOrDefault(configurationId, Map.of())
                .get(key));
    }

    /** All facts of each of these configurations, by key. */
    @Transactional(readOnly = true)
    public Map<Long, Map<String, String>> of(Collection<Long> configurationIds) {
        Map<Long, Map<String, String>> facts = new HashMap<>();
        for (Configuration c : configurations.findWithFactsByIdIn(configurationIds)) {
            Map<String, String> own = new HashMap<>();
            c.facts().forEach(f -> own.put(f.key(), f.value()));
            facts.put(c.id(), own);
        }
        return facts;
    }

    public static @Nullable Double number(@Nullable String value) {
        try {
            return value == null ? null : Double.valueOf(value);
        } catch (NumberFormatException e) {
            return null;
        }
    }
}
