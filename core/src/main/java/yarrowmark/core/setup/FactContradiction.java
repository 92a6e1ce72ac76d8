package yarrowmark.core.setup;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * Two facts of one configuration that cannot both be true.
 *
 * @param keys   the facts that contradict each other
 * @param reason a sentence for a person
 */
public record FactContradiction(List<String> keys, String reason) {
    /** The first fact is never larger than the second. */
    private record AtMost(String small, String large, String words) {}

    private static final List<AtMost> RULES = List.of(
            new AtMost("processor.cores", "processor.threads", "a core has at least one logical processor"),
            new AtMost("processor.sockets", "processor.cores", "every socket has at least one core"),
            new AtMost(
                    "processor.base_clock", "processor.boost_clock", "the highest clock is never below the base clock"),
            new AtMost("memory.usable", "memory.size", "a system cannot use more memory than there is"),
            new AtMost(
                    "power.sustained_limit", "power.short_limit", "the short limit is never below the sustained one"));

    public FactContradiction {
        keys = List.copyOf(keys);
    }

    /** Every contradiction among these facts, given in base units; values that are no numbers are passed over. */
    public static List<FactContradiction> in(Map<String, String> facts) {
        List<FactContradiction> found = new ArrayList<>();
        for (AtMost rule : RULES) {
            String smaller = facts.get(rule.small());
            String larger = facts.get(rule.large());
            Optional<BigDecimal> small = number(smaller);
            Optional<BigDecimal> large = number(larger);
            if (smaller != null
                    && larger != null
                    && small.isPresent()
                    && large.isPresent()
                    && small.get().compareTo(large.get()) > 0) {
                FactKey a = FactVocabulary.entry(rule.small());
                FactKey b = FactVocabulary.entry(rule.large());
                found.add(new FactContradiction(
                        List.of(rule.small(), rule.large()),
                        a.label() + " " + FactText.of(a, smaller) + " and "
                                + b.label().toLowerCase(java.util.Locale.ROOT) + " "
                                + FactText.of(b, larger) + " contradict each other: " + rule.words()
                                + "."));
            }
        }
        return found;
    }

    private static Optional<BigDecimal> number(@Nullable String value) {
        try {
            return value == null ? Optional.empty() : Optional.of(new BigDecimal(value));
        } catch (NumberFormatException e) {
            return Optional.empty();
        }
    }
}
