package yarrowmark.core.capture;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.yaml.snakeyaml.LoaderOptions;
import org.yaml.snakeyaml.Yaml;
import org.yaml.snakeyaml.constructor.SafeConstructor;
import yarrowmark.core.setup.FactVocabulary;

/** Loads the rules. A file that names an unknown fact or setting is refused at once, with its name. */
final class ToolFiles {
    /** In the order in which they are believed: where two tools tell the same fact, the first one here is taken. */
    static final List<String> NAMES = List.of(
            "dmidecode",
            "lscpu",
            "cpuinfo",
            "meminfo",
            "os-release",
            "uname",
            "lsblk-json",
            "lsblk-json-parts",
            "lsblk-pairs",
            "lshw-json",
            "lspci",
            "ip-link",
            "iw-link",
            "systeminfo",
            "system-profiler-json",
            "getprop");

    private static final Set<String> RULE_SETTINGS =
            Set.of("fact", "line", "when", "unless", "as", "take", "remove", "words", "ignore");

    private ToolFiles() {}

    static List<Tool> load() {
        return NAMES.stream().map(ToolFiles::load).toList();
    }

    static Tool load(String name) {
        try (InputStream in = ToolFiles.class.getResourceAsStream(name + ".yaml")) {
            if (in == null) {
                throw new IllegalStateException("there are no rules " + name + ".yaml");
            }
            Map<String, Object> file = new Yaml(new SafeConstructor(new LoaderOptions())).load(in);
            List<Rule> rules = new ArrayList<>();
            for (Map<String, Object> rule : ToolFiles.<List<Map<String, Object>>>cast(file.get("rules"))) {
                rules.add(rule(name, rule));
            }
            Map<String, List<String>> products = new LinkedHashMap<>();
            if (file.get("products") != null) {
                products.putAll(ToolFiles.<Map<String, List<String>>>cast(file.get("products")));
            }
            products.keySet().forEach(fact -> check(name, fact));
            return new Tool(
                    ToolFiles.<String>cast(file.get("tool")),
                    pattern(file.get("signature")).orElseThrow(),
                    pattern(file.get("mine")),
                    pattern(file.get("blocks")),
                    rules,
                    products);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static Rule rule(String file, Map<String, Object> rule) {
        if (!RULE_SETTINGS.containsAll(rule.keySet())) {
            throw new IllegalStateException(file + ".yaml has a setting that no rule knows: " + rule.keySet());
        }
        String fact = cast(rule.get("fact"));
        check(file, fact);
        Map<String, String> words = new LinkedHashMap<>();
        if (rule.get("words") != null) {
            ToolFiles.<Map<Object, Object>>cast(rule.get("words"))
                    .forEach((from, to) -> words.put(from.toString(), to.toString()));
        }
        return new Rule(
                fact,
                pattern(rule.get("line")).orElseThrow(),
                patterns(rule.get("when")),
                patterns(rule.get("unless")),
                Optional.ofNullable((String) rule.get("as")),
                Rule.SessionSelection.valueOf(
                        rule.getOrDefault("take", "first").toString().toUpperCase(java.util.Locale.ROOT)),
                pattern(rule.get("remove")),
                words,
                pattern(rule.get("ignore")));
    }

    private static void check(String file, String fact) {
        if (!fact.startsWith("_") && FactVocabulary.find(fact).isEmpty()) {
            throw new IllegalStateException(file + ".yaml tells a fact that is not in the vocabulary: " + fact);
        }
    }

    private static List<Pattern> patterns(@Nullable Object setting) {
        if (setting == null) {
            return List.of();
        }
        return setting instanceof List<?> list
                ? list.stream().map(p -> Pattern.compile((String) p)).toList()
                : List.of(Pattern.compile((String) setting));
    }

    private static Optional<Pattern> pattern(@Nullable Object setting) {
        return Optional.ofNullable(setting).map(p -> Pattern.compile((String) p));
    }

    @SuppressWarnings("unchecked")
    private static <T> T cast(@Nullable Object o) {
        return (T) Objects.requireNonNull(o, "a setting is missing");
    }
}
