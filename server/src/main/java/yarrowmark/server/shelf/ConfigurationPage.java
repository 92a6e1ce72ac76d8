package yarrowmark.server.shelf;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import yarrowmark.core.setup.FactDifference;
import yarrowmark.core.setup.FactGroup;
import yarrowmark.core.setup.FactKey;
import yarrowmark.core.setup.FactText;
import yarrowmark.core.setup.FactVocabulary;

/** A configuration with its facts by group, and what differs from its parent. */
public record ConfigurationPage(ConfigurationRow configuration, @Nullable Long parentId, @Nullable String parentName,
                                Instant createdAt, List<FactGroupPart> groups, List<ChangedFact> changed) {
    public record FactGroupPart(String group, List<FactPart> facts) { }

    /**
     * @param value as kept, in the base unit
     * @param shown as people write it
     */
    public record FactPart(String key, String label, String value, String shown, boolean detected) { }

    public record ChangedFact(String key, String label, @Nullable String before, @Nullable String after) { }

    static ConfigurationPage of(Configuration c, List<FactDifference> changed) {
        List<String> order = FactVocabulary.all().stream().map(FactKey::key).toList();
        Map<FactGroup, List<FactPart>> groups = new TreeMap<>();
        c.facts().stream()
            .sorted(Comparator.comparingInt((Fact f) -> order.contains(f.key()) ? order.indexOf(f.key()) : order.size()).thenComparing(Fact::key))
            .forEach(f -> {
                FactKey key = FactVocabulary.entry(f.key());
                groups.computeIfAbsent(key.group(), g -> new ArrayList<>()).add(
                    new FactPart(f.key(), key.label(), f.value(), FactText.of(key, f.value()), f.source() == Fact.Source.DETECTED));
            });
        return new ConfigurationPage(ConfigurationRow.of(c), c.parent() == null ? null : c.parent().id(),
            c.parent() == null ? null : c.parent().name(), c.createdAt(),
            groups.entrySet().stream().map(e -> new FactGroupPart(e.getKey().label(), e.getValue())).toList(),
            changed.stream().map(d -> new ChangedFact(d.key().key(), d.key().label(),
                d.before().map(v -> FactText.of(d.key(), v)).orElse(null), d.after().map(v -> FactText.of(d.key(), v)).orElse(null))).toList());
    }
}
