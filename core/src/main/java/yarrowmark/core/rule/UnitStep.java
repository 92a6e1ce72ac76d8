package yarrowmark.core.rule;

import java.util.Map;
import java.util.Objects;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/**
 * How many of one unit make another: "GB/s" is 1000 "MB/s", "ms" is 0.001 "s". Only units of the same kind, in the way
 * people write them; "points" and frames do not turn into anything else.
 */
public final class UnitStep {
    private static final Map<String, Double> PREFIXES = Map.ofEntries(
            Map.entry("", 1.0),
            Map.entry("k", 1e3),
            Map.entry("K", 1e3),
            Map.entry("M", 1e6),
            Map.entry("G", 1e9),
            Map.entry("T", 1e12),
            Map.entry("Ki", 0x1p10),
            Map.entry("Mi", 0x1p20),
            Map.entry("Gi", 0x1p30),
            Map.entry("Ti", 0x1p40),
            Map.entry("m", 1e-3),
            Map.entry("µ", 1e-6),
            Map.entry("u", 1e-6),
            Map.entry("n", 1e-9));
    private static final Set<String> BASES = Set.of(
            "s", "B", "b", "bit", "Hz", "W", "Wh", "J", "V", "A", "m", "g", "op", "ops", "flops", "FLOPS", "IOPS",
            "px");
    private static final Map<String, Double> WHOLE = Map.of("min", 60.0, "h", 3600.0, "By", 1.0);
    private static final Pattern UNIT = Pattern.compile("(Ki|Mi|Gi|Ti|[kKMGTmµun])?([A-Za-z]+)");

    private record Measure(String base, double factor) {}

    private UnitStep() {}

    /** What a value in the one unit is multiplied with to be in the other; empty where they are no units of one kind. */
    public static OptionalDouble factor(String from, String to) {
        if (from.equals(to)) {
            return OptionalDouble.of(1);
        }
        String[] a = from.split("/", 2);
        String[] b = to.split("/", 2);
        Measure upperFrom = measure(a[0].strip());
        Measure upperTo = measure(b[0].strip());
        if (upperFrom == null || upperTo == null || !upperFrom.base().equals(upperTo.base()) || a.length != b.length) {
            return OptionalDouble.empty();
        }
        double factor = upperFrom.factor() / upperTo.factor();
        if (a.length == 2) {
            Measure lowerFrom = measure(a[1].strip());
            Measure lowerTo = measure(b[1].strip());
            if (lowerFrom == null || lowerTo == null || !lowerFrom.base().equals(lowerTo.base())) {
                return OptionalDouble.empty();
            }
            factor *= lowerTo.factor() / lowerFrom.factor();
        }
        return OptionalDouble.of(factor);
    }

    /** Whether this is a unit of a measure, rather than a word or a number of points. */
    public static boolean known(String unit) {
        String[] parts = unit.split("/", 2);
        return measure(parts[0].strip()) != null && (parts.length == 1 || measure(parts[1].strip()) != null);
    }

    private static @Nullable Measure measure(String unit) {
        Double whole = WHOLE.get(unit);
        if (whole != null) {
            return new Measure(unit.equals("By") ? "B" : "s", whole);
        }
        if (BASES.contains(unit)) {
            return new Measure(base(unit), 1);
        }
        Matcher m = UNIT.matcher(unit);
        if (m.matches() && m.group(1) != null && BASES.contains(m.group(2))) {
            return new Measure(base(m.group(2)), Objects.requireNonNull(PREFIXES.get(m.group(1))));
        }
        return null;
    }

    private static String base(String written) {
        return switch (written) {
            case "bit" -> "b";
            case "ops" -> "op";
            case "FLOPS" -> "flops";
            default -> written;
        };
    }
}
