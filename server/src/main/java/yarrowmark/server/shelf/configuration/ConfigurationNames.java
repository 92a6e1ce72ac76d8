package yarrowmark.server.shelf.configuration;

import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Function;
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

    private static final int LONGEST = 200;

    private ConfigurationNames() {}

    /** @param siblings facts of the other configurations of the unit: the name says what tells this one from the nearest */
    static String suggest(
            @Nullable Map<String, String> parent, Map<String, String> facts, Collection<Map<String, String>> siblings) {
        if (parent != null) {
            String changed = FactDifference.name(FactDifference.between(parent, facts));
            return changed.isEmpty() ? "other small facts" : changed;
        }
        String parts = TELLING.stream()
                .map(k -> facts.containsKey(k) ? FactText.of(FactVocabulary.entry(k), facts.get(k)) : null)
                .filter(Objects::nonNull)
                .collect(Collectors.joining(" · "));
        String apart = siblings.stream()
                .map(s -> FactDifference.between(s, facts))
                .min(Comparator.comparingInt(List::size))
                .map(ds -> FactDifference.name(ds.stream()
                        .filter(d -> !TELLING.contains(d.key().key()))
                        .toList()))
                .orElse("");
        String all = Stream.of(parts, apart).filter(p -> !p.isEmpty()).collect(Collectors.joining(" · "));
        return all.isEmpty() ? "as found" : all;
    }

    /** A name that another one of the unit has, with what tells the two apart. @param other the facts of that one */
    private static String apart(String name, Map<String, String> other, Map<String, String> facts) {
        String different = FactDifference.name(FactDifference.between(other, facts));
        return different.isEmpty() || name.contains(different) ? name : name + ", " + different;
    }

    /**
     * A name that no other one of the unit has: what is told apart nowhere else is told apart by its facts, or by a
     * number.
     *
     * @param soCalled the facts of the unit's configuration of that name
     */
    static String unused(
            String name, Map<String, String> facts, Function<String, Optional<Map<String, String>>> soCalled) {
        String called = shortened(name);
        Optional<Map<String, String>> same = soCalled.apply(called);
        if (same.isEmpty()) {
            return called;
        }
        String apart = shortened(apart(name, same.get(), facts));
        String candidate = apart;
        for (int n = 2; soCalled.apply(candidate).isPresent(); n++) {
            String number = " (" + n + ")";
            candidate = apart.substring(0, Math.min(apart.length(), LONGEST - number.length())) + number;
        }
        return candidate;
    }

    private static String shortened(String name) {
        return name.length() <= LONGEST ? name : name.substring(0, LONGEST - 1) + "…";
    }
}
