package yarrowmark.core.formula;

import com.google.re2j.Matcher;
import com.google.re2j.Pattern;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * A total's formula understood as one of {@link SuiteTotal.Kind}, so that a part can be taken out of it and its parts can
 * be told apart. Reads what {@link SuiteTotal#formula} and {@code Calibration.total} write; anything else is no total.
 *
 * @param scale the whole is multiplied with, 1 unless the suite counts in points
 * @param parts in the formula's order
 */
public record TotalShape(SuiteTotal.Kind kind, double scale, List<Part> parts) {
    /** @param per      what the part is divided by first, 1 where by nothing. @param inverted whether per is divided by the part instead */
    public record Part(String input, double weight, double per, boolean inverted) {
        double value(double x) {
            return inverted ? per / x : x / per;
        }
    }

    /**
     * A total from some of its parts.
     *
     * @param used inputs that it was made of, in order
     */
    public record Recomputed(double base, double total, List<String> used, TotalContributions contributions) {}

    private static final String NUMBER = "([0-9][0-9.]*)";
    private static final String NAME = "([a-z][a-z0-9_]*)";
    private static final Pattern GEOMETRIC =
            Pattern.compile("(?:" + NUMBER + "\\*)?exp\\(\\((.+)\\)/" + NUMBER + "\\)");
    private static final Pattern HARMONIC = Pattern.compile(NUMBER + "/\\((.+)\\)");
    private static final Pattern ARITHMETIC = Pattern.compile("\\((.+)\\)/" + NUMBER);
    private static final Pattern TIMES = Pattern.compile(NUMBER + "\\*" + NAME);
    private static final Pattern OVER = Pattern.compile(NUMBER + "/" + NAME);
    private static final Pattern LOGARITHM = Pattern.compile(NUMBER + "\\*ln\\(" + NAME + "\\)");
    private static final Pattern RATIO = Pattern.compile("ln\\(" + NAME + "/" + NUMBER + "\\)");
    private static final Pattern INVERSE = Pattern.compile("ln\\(" + NUMBER + "/" + NAME + "\\)");

    public TotalShape {
        parts = List.copyOf(parts);
    }

    /** Empty where the formula is no total. */
    public static Optional<TotalShape> read(String formula) {
        String text = formula.replace(" ", "");
        Matcher geometric = GEOMETRIC.matcher(text);
        if (geometric.matches()) {
            return shape(
                    SuiteTotal.Kind.GEOMETRIC,
                    geometric.group(1) == null ? 1 : Double.parseDouble(geometric.group(1)),
                    geometric.group(2),
                    Double.parseDouble(geometric.group(3)));
        }
        Matcher harmonic = HARMONIC.matcher(text);
        if (harmonic.matches()) {
            return shape(SuiteTotal.Kind.HARMONIC, 1, harmonic.group(2), Double.parseDouble(harmonic.group(1)));
        }
        Matcher arithmetic = ARITHMETIC.matcher(text);
        if (arithmetic.matches()) {
            return shape(SuiteTotal.Kind.ARITHMETIC, 1, arithmetic.group(1), Double.parseDouble(arithmetic.group(2)));
        }
        return shape(SuiteTotal.Kind.SUM, 1, text, Double.NaN);
    }

    /** @param weight that all parts have together; NaN where the formula does not say */
    private static Optional<TotalShape> shape(SuiteTotal.Kind kind, double scale, String terms, double weight) {
        List<Part> parts = new ArrayList<>();
        for (String term : terms.split("\\+")) {
            Part part = part(kind, term);
            if (part == null) {
                return Optional.empty();
            }
            parts.add(part);
        }
        double sum = parts.stream().mapToDouble(Part::weight).sum();
        boolean whole = Double.isNaN(weight) || Math.abs(sum - weight) <= 1e-9 * weight;
        boolean once = new HashSet<>(parts.stream().map(Part::input).toList()).size() == parts.size();
        return whole && once ? Optional.of(new TotalShape(kind, scale, parts)) : Optional.empty();
    }

    private static @Nullable Part part(SuiteTotal.Kind kind, String term) {
        if (kind == SuiteTotal.Kind.GEOMETRIC) {
            Matcher ratio = RATIO.matcher(term);
            Matcher inverse = INVERSE.matcher(term);
            Matcher plain = LOGARITHM.matcher(term);
            return ratio.matches()
                    ? new Part(ratio.group(1), 1, Double.parseDouble(ratio.group(2)), false)
                    : inverse.matches()
                            ? new Part(inverse.group(2), 1, Double.parseDouble(inverse.group(1)), true)
                            : plain.matches()
                                    ? new Part(plain.group(2), Double.parseDouble(plain.group(1)), 1, false)
                                    : null;
        }
        Matcher m = (kind == SuiteTotal.Kind.HARMONIC ? OVER : TIMES).matcher(term);
        return m.matches() ? new Part(m.group(2), Double.parseDouble(m.group(1)), 1, false) : null;
    }

    /**
     * The total of two configurations from the parts that both have, and what each part adds to their difference.
     *
     * @param base  values by input; what is not in it is not there
     * @param other the same of the other configuration
     * @return empty where they share no part. A sum of fewer parts is smaller for that alone: it is a total of its own.
     */
    public Optional<Recomputed> recompute(Map<String, Double> base, Map<String, Double> other) {
        List<Part> used = parts.stream()
                .filter(p -> base.containsKey(p.input()) && other.containsKey(p.input()))
                .toList();
        if (used.isEmpty()) {
            return Optional.empty();
        }
        double[] weights = used.stream().mapToDouble(Part::weight).toArray();
        double[] from = used.stream()
                .mapToDouble(p -> p.value(Objects.requireNonNull(base.get(p.input()))))
                .toArray();
        double[] to = used.stream()
                .mapToDouble(p -> p.value(Objects.requireNonNull(other.get(p.input()))))
                .toArray();
        TotalContributions plain = TotalContributions.of(kind, weights, from, to);
        TotalContributions scaled = new TotalContributions(
                scale * plain.base(),
                scale * plain.total(),
                plain.parts().stream().map(p -> scale * p).toList(),
                plain.how());
        return Optional.of(new Recomputed(
                scaled.base(), scaled.total(), used.stream().map(Part::input).toList(), scaled));
    }
}
