package yarrowmark.server.shelf;

import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import yarrowmark.core.setup.FactDifference;
import yarrowmark.core.setup.FactText;
import yarrowmark.core.setup.FactVocabulary;

/** What a configuration is called when nobody named it. */
final class ConfigurationNames {
    /** The facts a reader knows a device by, in the order they are said. */
    private static final List<String> TELLING = List.of("processor.name", "memory.size", "os.name", "browser.name");

    private ConfigurationNames() {}

    static String suggest(@Nullable Map<String, String> parent, Map<String, String> facts) {
        if (parent != null) {
            String changed = FactDifference.name(FactDifference.between(parent, facts));
            return changed.isEmpty() ? "other small facts" : changed;
        }
        String parts = TELLING.stream()
                .map(k -> facts.containsKey(k) ? FactText.of(FactVocabulary.entry(k), facts.get(k)) : null)
                .filter(Objects::nonNull)
                .collect(Collectors.joining(" · "));
        return Stream.of(parts, "as found")
                .filter(p -> !p.isEmpty())
                .findFirst()
                .orElseThrow();
    }
}
