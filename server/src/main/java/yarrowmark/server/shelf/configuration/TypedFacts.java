package yarrowmark.server.shelf.configuration;

import static yarrowmark.server.platform.Require.require;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import yarrowmark.core.setup.FactContradiction;
import yarrowmark.core.setup.FactKey;
import yarrowmark.core.setup.FactReader;
import yarrowmark.core.setup.FactVocabulary;
import yarrowmark.server.platform.Problem;

/** Turns what a person typed for a whole configuration into facts, or says everything that is wrong with it at once. */
public final class TypedFacts {
    public static final int MOST_FACTS = 300;
    private static final int LONGEST_KEY = 80;

    /**
     * @param key  of the vocabulary, or any other name
     * @param text as typed; null where the fact stays as it was before
     * @param read whether it was taken from what a tool printed
     */
    public record Typed(String key, @Nullable String text, boolean read) {}

    private TypedFacts() {}

    /** @param before the facts that untyped ones are taken from */
    static Map<String, GivenFact> read(List<Typed> typed, @Nullable Configuration before) {
        List<Problem.Refused> refused = new ArrayList<>();
        Map<String, GivenFact> facts = new LinkedHashMap<>();
        Map<String, GivenFact> also = new LinkedHashMap<>();
        for (Typed t : typed) {
            String key = key(t.key(), refused);
            Optional<Fact> kept = before == null ? Optional.empty() : before.fact(key);
            GivenFact fact = t.text() == null ? kept(key, kept, refused) : typed(key, t, also, refused);
            if (fact != null && facts.put(key, fact) != null) {
                refused.add(new Problem.Refused(key, FactVocabulary.entry(key).label() + " is there twice."));
            }
        }
        also.forEach(facts::putIfAbsent);
        if (refused.isEmpty()) {
            Map<String, String> values = new LinkedHashMap<>();
            facts.forEach((k, f) -> values.put(k, f.value()));
            for (FactContradiction c : FactContradiction.in(values)) {
                refused.add(new Problem.Refused(c.keys().get(0), c.reason()));
            }
        }
        if (!refused.isEmpty()) {
            throw Problem.refused("facts-refused", refused);
        }
        return facts;
    }

    private static @Nullable GivenFact kept(String key, Optional<Fact> kept, List<Problem.Refused> refused) {
        if (kept.isEmpty()) {
            refused.add(new Problem.Refused(
                    key, FactVocabulary.entry(key).label() + " was to stay as it is, but it is not known."));
            return null;
        }
        return new GivenFact(key, kept.get().value(), kept.get().source, kept.get().otherValue);
    }

    private static @Nullable GivenFact typed(
            String key, Typed t, Map<String, GivenFact> also, List<Problem.Refused> refused) {
        FactReader.Reading reading = FactReader.read(FactVocabulary.entry(key), require(t.text()));
        if (reading instanceof FactReader.NotUnderstood not) {
            refused.add(new Problem.Refused(key, not.reason()));
            return null;
        }
        FactReader.Understood u = (FactReader.Understood) reading;
        FactSource source = t.read() ? FactSource.READ : FactSource.TYPED;
        u.also().forEach((k, v) -> also.put(k, new GivenFact(k, v, source)));
        return new GivenFact(key, u.value(), source);
    }

    /** A label of the vocabulary is as good as its key; any other name is its own key. */
    static String key(String typed, List<Problem.Refused> refused) {
        String name = typed.strip().replaceAll("\\s+", " ");
        if (name.isEmpty() || name.length() > LONGEST_KEY || name.codePoints().anyMatch(Character::isISOControl)) {
            refused.add(new Problem.Refused(name, "A fact needs a name of 1 to " + LONGEST_KEY + " characters."));
            return name;
        }
        return FactVocabulary.all().stream()
                .filter(k -> k.key().equals(name) || k.label().equalsIgnoreCase(name))
                .map(FactKey::key)
                .findFirst()
                .orElse(name);
    }
}
