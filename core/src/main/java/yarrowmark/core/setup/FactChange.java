package yarrowmark.core.setup;

import java.util.Optional;

/** How a fact's later value relates to its earlier one. */
public sealed interface FactChange {
    /** @param laterOverEarlier ratio of two quantities, above 1 where the later one is larger; not a judgement */
    record Ratio(double laterOverEarlier) implements FactChange {}

    /** For scales without a true zero, such as °C. @param laterMinusEarlier in the base unit */
    record Shift(double laterMinusEarlier) implements FactChange {}

    record Newer() implements FactChange {}

    record Older() implements FactChange {}

    /** Different, and there is no more to say. */
    record Other() implements FactChange {}

    /**
     * Formula: later ÷ earlier for quantities; later − earlier for temperatures, levels in dB and where the earlier
     * value is 0; version order and calendar order for versions and dates.
     *
     * @return empty where the values are equal
     */
    static Optional<FactChange> between(FactKey key, String earlier, String later) {
        if (earlier.equals(later)) {
            return Optional.empty();
        }
        if (key.isQuantity()) {
            try {
                return number(key, Double.parseDouble(earlier), Double.parseDouble(later));
            } catch (NumberFormatException e) {
                // Stored before the key had this type: different text is all that is known.
                return Optional.of(new Other());
            }
        }
        if (key.type() == FactKey.Type.VERSION || key.type() == FactKey.Type.DATE) {
            int order = VersionOrder.INSTANCE.compare(later, earlier);
            return Optional.of(order > 0 ? new Newer() : order < 0 ? new Older() : new Other());
        }
        return Optional.of(new Other());
    }

    private static Optional<FactChange> number(FactKey key, double earlier, double later) {
        if (earlier == later) {
            return Optional.empty();
        }
        boolean interval = key.dimension() == Dimension.TEMPERATURE
                || key.dimension() == Dimension.SOUND
                || !(earlier > 0)
                || !(later > 0);
        return Optional.of(interval ? new Shift(later - earlier) : new Ratio(later / earlier));
    }
}
