package yarrowmark.core.calibration;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.yaml.snakeyaml.LoaderOptions;
import org.yaml.snakeyaml.Yaml;
import org.yaml.snakeyaml.constructor.SafeConstructor;
import yarrowmark.core.measure.Direction;

/**
 * A fixed table of one value for each test of the built-in suites. A suite's total is the geometric mean of the ratios
 * to it, times 1000: a device that has every value of the table has 1000 points. The table is never changed; another
 * one has another version, and its totals are another metric.
 *
 * @param values by the test's key, in the test's unit
 */
public record Calibration(int version, Map<String, Double> values) {
    private static final double POINTS = 1000;

    /** A test that a total is made of. @param input its name in the total's formula */
    public record Part(String key, String input, Direction direction) {}

    public Calibration {
        values = Map.copyOf(values);
        values.forEach((key, value) -> {
            if (!(value > 0 && value < Double.POSITIVE_INFINITY)) {
                throw new IllegalArgumentException("The value of " + key + " must be above 0, not " + value + ".");
            }
        });
    }

    /** @throws IllegalArgumentException where there is no table of this version */
    public static Calibration load(int version) {
        try (InputStream in = Calibration.class.getResourceAsStream("calibration-" + version + ".yaml")) {
            if (in == null) {
                throw new IllegalArgumentException("There is no calibration table " + version + ".");
            }
            Map<String, Number> table = new Yaml(new SafeConstructor(new LoaderOptions())).load(in);
            Map<String, Double> values = new LinkedHashMap<>();
            table.forEach((key, value) -> values.put(key, value.doubleValue()));
            return new Calibration(version, values);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /**
     * The total as a formula over its parts: 1000 · exp(Σ ln(ratio) / n), where a ratio is above 1 for what is better
     * than the table.
     *
     * @throws IllegalArgumentException where a part is not in the table, or there is none
     */
    public String total(List<Part> parts) {
        if (parts.isEmpty()) {
            throw new IllegalArgumentException("A total needs a part.");
        }
        List<String> terms = new ArrayList<>();
        for (Part part : parts) {
            Double value = values.get(part.key());
            if (value == null) {
                throw new IllegalArgumentException(
                        "The calibration table " + version + " has no value of " + part.key() + ".");
            }
            String plain = BigDecimal.valueOf(value).stripTrailingZeros().toPlainString();
            terms.add(
                    part.direction() == Direction.MORE_IS_BETTER
                            ? "ln(" + part.input() + "/" + plain + ")"
                            : "ln(" + plain + "/" + part.input() + ")");
        }
        return (int) POINTS + "*exp((" + String.join("+", terms) + ")/" + parts.size() + ")";
    }
}
