package yarrowmark.core.setup;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;

/**
 * The facts of two or more configurations side by side: which differ, which are known of some only, which are the same.
 *
 * @param differing facts with at least two different known values, the change under test first
 * @param partly    facts whose known values agree, but that are not known of every configuration
 * @param same      facts known of all, with one value
 */
public record SetupComparison(List<Row> differing, List<Row> partly, List<Row> same) {
    /** What moves scores most comes first, so that a reader sees the drive before the driver. */
    private static final List<FactGroup> USUALLY_MOVES = List.of(
            FactGroup.PROCESSOR,
            FactGroup.GRAPHICS,
            FactGroup.POWER,
            FactGroup.MEMORY,
            FactGroup.STORAGE,
            FactGroup.COOLING,
            FactGroup.SYSTEM,
            FactGroup.BROWSER,
            FactGroup.BOARD,
            FactGroup.DRIVERS,
            FactGroup.DISPLAY,
            FactGroup.ROOM,
            FactGroup.OTHER);

    /** What a differing fact is in this comparison. */
    public enum Role {
        /** What the reviewer set out to test. */
        UNDER_TEST,
        /** Differs as well, and may be what moved a score. */
        ALSO_CHANGED,
        /** Differs, but by no more than its tolerance. */
        WITHIN_TOLERANCE,
        /** Does not differ where it is known. */
        NONE
    }

    /**
     * @param values  one for each configuration, in their order; empty where it is not known
     * @param changes how each value relates to the base's; empty where equal, or where either is not known
     */
    public record Row(FactKey key, List<Optional<String>> values, List<Optional<FactChange>> changes, Role role) {
        public Row {
            values = List.copyOf(values);
            changes = List.copyOf(changes);
        }
    }

    public SetupComparison {
        differing = List.copyOf(differing);
        partly = List.copyOf(partly);
        same = List.copyOf(same);
    }

    /** Differences that nobody set out to test and that are larger than their tolerance. */
    public List<Row> alsoChanged() {
        return differing.stream().filter(r -> r.role() == Role.ALSO_CHANGED).toList();
    }

    /**
     * @param setups    facts of each configuration by key, in base units; two at least; not changed
     * @param base      index of the configuration that changes are told from
     * @param underTest keys of the facts that are the change under test; keys that do not differ are left aside
     * @throws IllegalArgumentException where there are fewer than two configurations, or no such base
     */
    public static SetupComparison of(List<? extends Map<String, String>> setups, int base, Set<String> underTest) {
        if (setups.size() < 2) {
            throw new IllegalArgumentException("a difference needs two configurations, not " + setups.size());
        }
        Objects.checkIndex(base, setups.size());
        Set<String> keys = new TreeSet<>(FactVocabulary.order());
        setups.forEach(s -> keys.addAll(s.keySet()));
        List<Row> differing = new ArrayList<>();
        List<Row> partly = new ArrayList<>();
        List<Row> same = new ArrayList<>();
        for (String name : keys) {
            FactKey key = FactVocabulary.entry(name);
            List<Optional<String>> values =
                    setups.stream().map(s -> Optional.ofNullable(s.get(name))).toList();
            List<String> known =
                    values.stream().flatMap(Optional::stream).distinct().toList();
            boolean everywhere = values.stream().allMatch(Optional::isPresent);
            boolean differs = known.size() > 1;
            Role role = !differs
                    ? Role.NONE
                    : underTest.contains(name)
                            ? Role.UNDER_TEST
                            : within(key, known) ? Role.WITHIN_TOLERANCE : Role.ALSO_CHANGED;
            List<Optional<FactChange>> changes = values.stream()
                    .map(v -> v.isPresent() && values.get(base).isPresent()
                            ? FactChange.between(key, values.get(base).get(), v.get())
                            : Optional.<FactChange>empty())
                    .toList();
            (differs ? differing : everywhere ? same : partly).add(new Row(key, values, changes, role));
        }
        differing.sort(Comparator.comparing(Row::role)
                .thenComparingInt(r -> USUALLY_MOVES.indexOf(r.key().group())));
        return new SetupComparison(differing, partly, same);
    }

    private static boolean within(FactKey key, List<String> known) {
        if (!key.isQuantity()) {
            return false;
        }
        try {
            double least = known.stream().mapToDouble(Double::parseDouble).min().orElseThrow();
            double most = known.stream().mapToDouble(Double::parseDouble).max().orElseThrow();
            return key.tolerance().covers(least, most);
        } catch (NumberFormatException e) {
            return false;
        }
    }
}
