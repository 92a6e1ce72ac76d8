package yarrowmark.core.formula;

import java.math.BigDecimal;
import java.util.List;
import java.util.stream.Collectors;

/**
 * The total that a suite computes from its parts, written as a formula, so that there is one way to compute and to show
 * it. With weights w: sum Σwx; arithmetic Σwx / Σw; geometric exp(Σw ln x / Σw); harmonic Σw / Σ(w / x). Section 4.
 */
public final class SuiteTotal {
    public enum Kind {
        SUM,
        ARITHMETIC,
        GEOMETRIC,
        HARMONIC
    }

    /** @param input  name of the part in the formula */
    public record Part(String input, double weight) {
        public Part {
            if (!(weight > 0 && weight < Double.POSITIVE_INFINITY)) {
                throw new IllegalArgumentException("A weight is above 0, not " + weight + ".");
            }
        }
    }

    private SuiteTotal() {}

    /** @param parts one or more */
    public static String formula(Kind kind, List<Part> parts) {
        if (parts.isEmpty()) {
            throw new IllegalArgumentException("A total needs a part.");
        }
        String weights =
                plain(parts.stream().map(p -> BigDecimal.valueOf(p.weight())).reduce(BigDecimal.ZERO, BigDecimal::add));
        return switch (kind) {
            case SUM -> joined(parts, "%s*%s");
            case ARITHMETIC -> "(" + joined(parts, "%s*%s") + ")/" + weights;
            case GEOMETRIC -> "exp((" + joined(parts, "%s*ln(%s)") + ")/" + weights + ")";
            case HARMONIC -> weights + "/(" + joined(parts, "%s/%s") + ")";
        };
    }

    private static String joined(List<Part> parts, String term) {
        return parts.stream()
                .map(p -> term.formatted(plain(BigDecimal.valueOf(p.weight())), p.input()))
                .collect(Collectors.joining(" + "));
    }

    private static String plain(BigDecimal number) {
        return number.stripTrailingZeros().toPlainString();
    }
}
