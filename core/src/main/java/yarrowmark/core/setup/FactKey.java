package yarrowmark.core.setup;

import java.util.List;
import java.util.Optional;

/**
 * One entry of the vocabulary.
 *
 * @param key       "memory.size"
 * @param label     "Memory size"
 * @param brief     how a change of it is called: "memory" in "memory 16 GiB"
 * @param dimension what it measures, {@link Dimension#NONE} where it is no quantity
 * @param bareUnit  the unit meant where somebody writes a number alone; empty where a number alone is refused
 * @param least     smallest sensible value in the base unit
 * @param most      largest sensible value in the base unit
 * @param choices   what a choice may be; empty for other types
 * @param naming    whether a configuration may be called by it; some facts are noted but tell a reader nothing
 */
public record FactKey(
        String key,
        String label,
        String brief,
        FactGroup group,
        Type type,
        Dimension dimension,
        Optional<String> bareUnit,
        double least,
        double most,
        Tolerance tolerance,
        List<FactChoice> choices,
        boolean naming) {
    /** How a value is typed and compared. */
    public enum Type {
        INTEGER,
        DECIMAL,
        VERSION,
        CHOICE,
        YES_NO,
        TEXT,
        DATE,
        PIXELS
    }

    public FactKey {
        choices = List.copyOf(choices);
        if (!(least <= most)) {
            throw new IllegalArgumentException(key + ": the range from " + least + " to " + most + " is empty");
        }
    }

    static FactKey of(String key, String label, FactGroup group, Type type) {
        return new FactKey(
                key,
                label,
                label,
                group,
                type,
                Dimension.NONE,
                Optional.empty(),
                Double.NEGATIVE_INFINITY,
                Double.POSITIVE_INFINITY,
                Tolerance.NONE,
                List.of(),
                true);
    }

    public boolean isQuantity() {
        return type == Type.INTEGER || type == Type.DECIMAL;
    }

    FactKey called(String newBrief) {
        return new FactKey(
                key, label, newBrief, group, type, dimension, bareUnit, least, most, tolerance, choices, naming);
    }

    /** One of several; a configuration is called by the first of them. */
    FactKey numbered(String n) {
        return new FactKey(
                key + "." + n,
                label + " " + n,
                brief + " " + n,
                group,
                type,
                dimension,
                bareUnit,
                least,
                most,
                tolerance,
                choices,
                false);
    }

    FactKey quiet() {
        return new FactKey(key, label, brief, group, type, dimension, bareUnit, least, most, tolerance, choices, false);
    }

    FactKey measuring(Dimension newDimension) {
        return new FactKey(
                key, label, brief, group, type, newDimension, bareUnit, least, most, tolerance, choices, naming);
    }

    FactKey bare(String unit) {
        return new FactKey(
                key, label, brief, group, type, dimension, Optional.of(unit), least, most, tolerance, choices, naming);
    }

    FactKey within(double newLeast, double newMost) {
        return new FactKey(
                key, label, brief, group, type, dimension, bareUnit, newLeast, newMost, tolerance, choices, naming);
    }

    FactKey tolerant(Tolerance newTolerance) {
        return new FactKey(
                key, label, brief, group, type, dimension, bareUnit, least, most, newTolerance, choices, naming);
    }

    FactKey among(FactChoice... newChoices) {
        return new FactKey(
                key,
                label,
                brief,
                group,
                type,
                dimension,
                bareUnit,
                least,
                most,
                tolerance,
                List.of(newChoices),
                naming);
    }

    FactKey among(String... names) {
        return among(List.of(names).stream().map(FactChoice::of).toArray(FactChoice[]::new));
    }
}
