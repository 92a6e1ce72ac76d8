package yarrowmark.core.rule;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
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

    @SuppressWarnings("unchecked")
    private static Tool load(String key) {
        try (InputStream in = ShippedRules.class.getResourceAsStream(key + ".yaml")) {
            if (in == null) {
                throw new IllegalStateException("there are no rules " + key + ".yaml");
            }
            Map<String, Object> file = new Yaml(new SafeConstructor(new LoaderOptions())).load(in);
            List<Part> parts = new ArrayList<>();
            for (Map<String, Object> test : (List<Map<String, Object>>) file.get("tests")) {
                parts.add(part(test));
            }
            return new Tool(
                    key, (String) file.get("name"), (String) file.get("how"), parts, (String) file.get("sample"));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static Part part(Map<String, Object> test) {
        String unit = (String) test.get("unit");
        ScorePattern pattern = new ScorePattern(
                (String) test.get("test"),
                ScorePattern.Kind.LINE,
                (String) test.get("line"),
                (String) test.getOrDefault("patternUnit", unit),
                ScorePattern.EACH);
        return new Part(
                pattern,
                unit,
                test.get("direction").equals("more") ? Direction.MORE_IS_BETTER : Direction.LESS_IS_BETTER,
                "difference".equals(test.get("scale")) ? Scale.DIFFERENCE : TestLines.scale(unit),
                (String) test.get("group"),
                !Boolean.FALSE.equals(test.get("main")));
    }
}
