package yarrowmark.core.setup;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeSet;
import java.util.stream.Collectors;

/**
 * A fact on which two configurations do not agree.
 *
 * @param before empty where only the later configuration knows the fact
 * @param after  empty where only the earlier one knows it
 */
public record FactDifference(FactKey key, Optional<String> before, Optional<String> after) {

    private static final int MOST_NAMED = 3;

    /** Every fact that differs or is known on one side only, in key order. Neither map is changed. */
    public static List<FactDifference> between(Map<String, String> before, Map<String, String> after) {
        TreeSet<String> keys = new TreeSet<>(before.keySet());
        keys.addAll(after.keySet());
        List<FactDifference> differences = new ArrayList<>();
        for (String key : keys) {
            Optional<String> from = Optional.ofNullable(before.get(key));
            Optional<String> to = Optional.ofNullable(after.get(key));
            if (!from.equals(to)) {
                differences.add(new FactDifference(FactVocabulary.entry(key), from, to));
            }
        }
        return differences;
    }

    /**
     * What a configuration that differs like this is called: "firmware 1.11", "browser 141.2, mains". Facts that changed
     * come before facts that were not known before; at most three are named, more are counted. Empty where nothing that
     * tells a reader anything was changed or added.
     */
    public static String name(List<FactDifference> differences) {
        List<FactDifference> telling = differences.stream()
                .filter(d -> d.after().isPresent() && d.key().naming())
                .sorted(Comparator.comparing((FactDifference d) -> d.before().isEmpty()))
                .toList();
        String named = telling.stream()
                .limit(MOST_NAMED)
                .map(d -> d.key().brief() + " " + FactText.of(d.key(), d.after().get()))
                .collect(Collectors.joining(", "));
        return named + (telling.size() > MOST_NAMED ? " and " + (telling.size() - MOST_NAMED) + " more" : "");
    }
}
