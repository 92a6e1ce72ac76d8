package yarrowmark.core.rule;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.yaml.snakeyaml.LoaderOptions;
import org.yaml.snakeyaml.Yaml;
import org.yaml.snakeyaml.constructor.SafeConstructor;
import yarrowmark.core.entry.TestLines;
import yarrowmark.core.measure.Direction;
import yarrowmark.core.measure.Scale;

/** Rules for general-purpose programs whose output reviewers read scores from; one YAML file each. */
public final class ShippedRules {
    /**
     * One test that the tool's output holds.
     *
     * @param unit  of the metric; the pattern may find another one of its kind
     * @param group of tests, in lower case
     * @param main  whether it takes part in overall rankings
     */
    public record Part(
            ScorePattern pattern, String unit, Direction direction, Scale scale, String group, boolean main) {}

    /** @param how the command that prints what is read */
    public record Tool(String key, String name, String how, List<Part> parts, String sample) {
        public Tool {
            parts = List.copyOf(parts);
        }

        public List<ScorePattern> patterns() {
            return parts.stream().map(Part::pattern).toList();
        }
    }

    private static final List<String> FILES =
            List.of("time", "time-v", "openssl-speed", "dd", "xz", "zstd", "ping", "systemd-analyze");
    private static final List<Tool> TOOLS =
            FILES.stream().map(ShippedRules::load).toList();

    private ShippedRules() {}

    public static List<Tool> all() {
        return TOOLS;
    }

    private static Tool load(String key) {
        try (InputStream in = ShippedRules.class.getResourceAsStream(key + ".yaml")) {
            if (in == null) {
                throw new IllegalStateException("there are no rules " + key + ".yaml");
            }
            Map<String, Object> file = new Yaml(new SafeConstructor(new LoaderOptions())).load(in);
            List<Part> parts = new ArrayList<>();
            for (Map<String, Object> test : ShippedRules.<List<Map<String, Object>>>of(file, "tests")) {
                parts.add(part(test));
            }
            return new Tool(key, of(file, "name"), of(file, "how"), parts, of(file, "sample"));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static Part part(Map<String, Object> test) {
        String unit = of(test, "unit");
        ScorePattern pattern = new ScorePattern(
                of(test, "test"),
                ScorePattern.Kind.LINE,
                of(test, "line"),
                test.containsKey("patternUnit") ? of(test, "patternUnit") : unit,
                ScorePattern.EACH);
        return new Part(
                pattern,
                unit,
                "more".equals(test.get("direction")) ? Direction.MORE_IS_BETTER : Direction.LESS_IS_BETTER,
                "difference".equals(test.get("scale")) ? Scale.DIFFERENCE : TestLines.scale(unit),
                of(test, "group"),
                !Boolean.FALSE.equals(test.get("main")));
    }

    @SuppressWarnings("unchecked")
    private static <T> T of(Map<String, Object> settings, String name) {
        return (T) Objects.requireNonNull(settings.get(name), name);
    }
}
