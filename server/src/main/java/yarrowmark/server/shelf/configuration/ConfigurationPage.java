package yarrowmark.server.shelf.configuration;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import yarrowmark.core.setup.FactContradiction;
import yarrowmark.core.setup.FactDifference;
import yarrowmark.core.setup.FactKey;
import yarrowmark.core.setup.FactReader;
import yarrowmark.core.setup.FactText;
import yarrowmark.core.setup.FactVocabulary;

/**
 * A configuration with its facts, and what differs from its parent.
 *
 * @param fingerprint   of the facts; whoever changes them says which they saw
 * @param sessions      how many were measured with it; above 0 its facts are corrected, not changed
 * @param mergedInto    where its sessions went
 * @param tested        keys of the facts that are the change under test
 * @param contradictory sentences about facts that cannot both be true
 * @param sameFacts     other configurations of the model with exactly these facts
 */
public record ConfigurationPage(
        ConfigurationRow configuration,
        long unitId,
        @Nullable Long parentId,
        @Nullable String parentName,
        Instant createdAt,
        String fingerprint,
        int sessions,
        @Nullable Long mergedInto,
        List<FactPart> facts,
        List<ChangedFact> changed,
        List<String> tested,
        List<String> contradictory,
        List<SameFacts> sameFacts,
        List<CorrectionPart> corrections) {
    /**
     * @param value as kept, in the base unit
     * @param shown as people write it
     * @param exact a text that is read as exactly this value; absent where what is shown is
     * @param other what the other source says, as people write it, until somebody picks
     */
    public record FactPart(
            String key,
            String label,
            String group,
            String value,
            String shown,
            @Nullable String exact,
            FactSource source,
            @Nullable String other) {}

    public record ChangedFact(String key, String label, @Nullable String before, @Nullable String after) {}

    /** @param mergeable whether it is of the same unit, so that sessions can be put together */
    public record SameFacts(ConfigurationRow configuration, boolean mergeable) {}

    public record CorrectionPart(
            String label, @Nullable String before, @Nullable String after, String reason, String person, Instant at) {}

    public static ConfigurationPage of(
            Configuration c, int sessions, List<Configuration> same, List<FactCorrection> corrections) {
        List<FactDifference> changed = c.parent() == null
                ? List.of()
                : FactDifference.between(c.parent().values(), c.values());
        Map<String, String> values = c.values();
        List<FactPart> facts = c.facts().stream()
                .sorted(java.util.Comparator.comparing(Fact::key, FactVocabulary.order()))
                .map(f -> {
                    FactKey key = FactVocabulary.entry(f.key());
                    String shown = FactText.of(key, f.value());
                    String exact = FactReader.exactText(key, f.value());
                    return new FactPart(
                            f.key(),
                            key.label(),
                            key.group().label(),
                            f.value(),
                            shown,
                            exact.equals(shown) ? null : exact,
                            f.source,
                            f.otherValue == null ? null : FactText.of(key, f.otherValue));
                })
                .toList();
        return new ConfigurationPage(
                ConfigurationRow.of(c),
                c.unit().id(),
                c.parent() == null ? null : c.parent().id(),
                c.parent() == null ? null : c.parent().name(),
                c.createdAt(),
                c.fingerprint(),
                sessions,
                c.mergedInto(),
                facts,
                changed.stream()
                        .map(d -> new ChangedFact(
                                d.key().key(),
                                d.key().label(),
                                shown(d.key(), d.before().orElse(null)),
                                shown(d.key(), d.after().orElse(null))))
                        .toList(),
                List.copyOf(c.tested()),
                FactContradiction.in(values).stream()
                        .map(FactContradiction::reason)
                        .toList(),
                same.stream()
                        .map(s -> new SameFacts(
                                ConfigurationRow.of(s),
                                s.unit().id().equals(c.unit().id())))
                        .toList(),
                corrections.stream()
                        .map(r -> new CorrectionPart(
                                FactVocabulary.entry(r.factKey).label(),
                                shown(FactVocabulary.entry(r.factKey), r.oldValue),
                                shown(FactVocabulary.entry(r.factKey), r.newValue),
                                r.reason,
                                r.person,
                                r.at))
                        .toList());
    }

    private static @Nullable String shown(FactKey key, @Nullable String value) {
        return value == null ? null : FactText.of(key, value);
    }
}
