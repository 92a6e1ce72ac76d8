package yarrowmark.core.setup;

import java.math.BigDecimal;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * What a quantity measures: the base unit it is kept in, as a UCUM code, and the units people write it in.
 *
 * <p>Bytes come twice. A drive of 512 GB has 512 · 10⁹ bytes; memory of 16 GB has 16 · 2³⁰, because memory and caches
 * are made in powers of two and sold under decimal names. GiB is 2³⁰ in both, and amounts are shown so that nobody has
 * to guess.
 */
public enum Dimension {
    NONE("", "a value"),
    COUNT("1", "a number", unit("", 1), unit("x", 1), unit("×", 1)),
    BYTES("By", "an amount of data", bytes(1000)),
    MEMORY("By", "an amount of memory", bytes(1024)),
    FREQUENCY("Hz", "a frequency", unit("Hz", 1), unit("kHz", 1e3), unit("MHz", 1e6), unit("GHz", 1e9)),
    TRANSFERS(
            "{transfer}/s", "a transfer rate", unit("MT/s", 1e6), unit("GT/s", 1e9), unit("T/s", 1), unit("MTps", 1e6)),
    POWER("W", "a power", unit("W", 1), unit("mW", 1e-3), unit("kW", 1e3)),
    TEMPERATURE(
            "Cel",
            "a temperature",
            unit("°C", 1),
            unit("C", 1),
            unit("° C", 1),
            unit("K", 1),
            unit("°F", 1),
            unit("F", 1)),
    TIME(
            "s",
            "a time",
            unit("s", 1),
            unit("ms", 1e-3),
            unit("µs", 1e-6),
            unit("us", 1e-6),
            unit("ns", 1e-9),
            unit("min", 60),
            unit("h", 3600)),
    LENGTH(
            "m",
            "a length",
            unit("mm", 1e-3),
            unit("cm", 1e-2),
            unit("m", 1),
            unit("in", 0.0254),
            unit("inch", 0.0254),
            unit("\"", 0.0254),
            unit("″", 0.0254)),
    MASS("g", "a weight", unit("g", 1), unit("kg", 1e3), unit("lb", 453.59237), unit("oz", 28.349523125)),
    ENERGY("W.h", "an amount of energy", unit("Wh", 1), unit("mWh", 1e-3), unit("kWh", 1e3), unit("W·h", 1)),
    BIT_RATE(
            "bit/s",
            "a data rate",
            unit("bit/s", 1),
            unit("kbit/s", 1e3),
            unit("Mbit/s", 1e6),
            unit("Gbit/s", 1e9),
            unit("Mb/s", 1e6),
            unit("Gb/s", 1e9),
            unit("Mbps", 1e6),
            unit("Gbps", 1e9),
            unit("MBit/s", 1e6),
            unit("GBit/s", 1e9)),
    ROTATION("{rotation}/min", "a speed of rotation", unit("rpm", 1), unit("/min", 1), unit("min⁻¹", 1)),
    SOUND("dB", "a sound level", unit("dB", 1), unit("dB(A)", 1), unit("dBA", 1)),
    LUMINANCE("cd/m2", "a brightness", unit("cd/m²", 1), unit("cd/m2", 1), unit("nit", 1), unit("nits", 1)),
    SHARE("%", "a share", unit("%", 1)),
    BITS("bit", "a number of bits", unit("bit", 1), unit("bits", 1));

    private final String base;
    private final String words;
    private final Map<String, BigDecimal> factors = new LinkedHashMap<>();

    @SafeVarargs
    Dimension(String base, String words, Map<String, BigDecimal>... units) {
        this.base = base;
        this.words = words;
        for (Map<String, BigDecimal> unit : units) {
            factors.putAll(unit);
        }
    }

    private static Map<String, BigDecimal> unit(String word, double factor) {
        return Map.of(word, BigDecimal.valueOf(factor));
    }

    /** Prefixes without an i are powers of this step; those with an i are always powers of 1024. */
    private static Map<String, BigDecimal> bytes(int step) {
        Map<String, BigDecimal> units = new LinkedHashMap<>();
        units.put("B", BigDecimal.ONE);
        units.put("bytes", BigDecimal.ONE);
        units.put("byte", BigDecimal.ONE);
        List<String> prefixes = List.of("k", "M", "G", "T", "P");
        for (int i = 0; i < prefixes.size(); i++) {
            units.put(prefixes.get(i) + "B", BigDecimal.valueOf(step).pow(i + 1));
            units.put(
                    prefixes.get(i).toUpperCase() + "iB",
                    BigDecimal.valueOf(1024).pow(i + 1));
        }
        units.put("KB", BigDecimal.valueOf(step));
        units.put("kiB", BigDecimal.valueOf(1024));
        return units;
    }

    /** UCUM code of the unit values are kept in; empty where there is none. */
    public String base() {
        return base;
    }

    /** "a frequency", for sentences. */
    public String words() {
        return words;
    }

    /** What one of this unit is in base units. Spelling counts first ("mW" is not "MW"), then letters of any case where that is clear. */
    public Optional<BigDecimal> factor(String unit) {
        BigDecimal exact = factors.get(unit);
        if (exact != null) {
            return Optional.of(exact);
        }
        // A large M is mega: "MW" is not taken for a milliwatt. A small m is often written for mega, as in "mhz".
        List<BigDecimal> alike = factors.entrySet().stream()
                .filter(e -> e.getKey().equalsIgnoreCase(unit)
                        && !(unit.startsWith("M") && e.getKey().matches("m(W|Wh|s)")))
                .map(Map.Entry::getValue)
                .distinct()
                .toList();
        // "Gb" is a gigabit and "gb" may be either; only a reader of bytes written in one case is free of doubt.
        boolean doubtful =
                unit.length() > 1 && unit.endsWith("b") && !unit.equals(unit.toLowerCase(java.util.Locale.ROOT));
        return alike.size() == 1 && !doubtful ? Optional.of(alike.get(0)) : Optional.empty();
    }

    /** The dimension, other than this, that a unit belongs to. */
    static Optional<Dimension> ofUnit(String unit) {
        for (Dimension d : values()) {
            if (!unit.isEmpty() && d.factors.containsKey(unit)) {
                return Optional.of(d);
            }
        }
        return Optional.empty();
    }

    /** How the base unit is written; empty where a number alone is meant. */
    String baseWord() {
        return switch (this) {
            case NONE, COUNT -> "";
            case BYTES, MEMORY -> "B";
            case TRANSFERS -> "T/s";
            case TEMPERATURE -> "°C";
            case ENERGY -> "Wh";
            case ROTATION -> "rpm";
            case LUMINANCE -> "cd/m²";
            default -> base;
        };
    }

    /** An example of a unit to write, for messages. */
    String exampleUnit() {
        return switch (this) {
            case BYTES -> "GB or GiB";
            case MEMORY -> "GB";
            case FREQUENCY -> "GHz";
            case TRANSFERS -> "MT/s";
            case LENGTH -> "mm";
            default -> factors.keySet().stream().findFirst().orElse("");
        };
    }
}
