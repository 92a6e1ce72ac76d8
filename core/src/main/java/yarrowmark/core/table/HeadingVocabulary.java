package yarrowmark.core.table;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import org.yaml.snakeyaml.LoaderOptions;
import org.yaml.snakeyaml.Yaml;
import org.yaml.snakeyaml.constructor.SafeConstructor;

/** The words of {@code heading-words.yaml}: what people write over columns, and what it stands for. */
final class HeadingVocabulary {
    private static final String FILE = "heading-words.yaml";
    private static final Map<String, Map<String, List<String>>> ALL = load();
    private static final Map<String, String> ROLES = byWord("roles");
    private static final Map<String, String> FIELDS = byWord("fields");
    private static final Map<String, String> FACTS = byWord("facts");
    private static final Map<String, String> UNITS = byWord("units");

    private HeadingVocabulary() {}

    static Optional<ColumnRole> role(String word) {
        return Optional.ofNullable(ROLES.get(word)).map(ColumnRole::valueOf);
    }

    /** A field of a model, by its name. */
    static Optional<String> field(String word) {
        return Optional.ofNullable(FIELDS.get(word));
    }

    /** The key of a fact. */
    static Optional<String> fact(String word) {
        return Optional.ofNullable(FACTS.get(word));
    }

    /** A unit as it is kept. @param word without spaces */
    static Optional<String> unit(String word) {
        return Optional.ofNullable(UNITS.get(word));
    }

    private static Map<String, Map<String, List<String>>> load() {
        try (InputStream in = Objects.requireNonNull(HeadingVocabulary.class.getResourceAsStream(FILE))) {
            return new Yaml(new SafeConstructor(new LoaderOptions())).load(in);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static Map<String, String> byWord(String kind) {
        Map<String, String> meanings = new HashMap<>();
        Objects.requireNonNull(ALL.get(kind))
                .forEach((meaning, words) -> words.forEach(word -> {
                    if (meanings.put(word, meaning) != null) {
                        throw new IllegalStateException(FILE + ": \"" + word + "\" stands for two " + kind);
                    }
                }));
        return meanings;
    }
}
