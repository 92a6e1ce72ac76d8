package yarrowmark.core.setup;

/**
 * One entry of the vocabulary.
 *
 * @param key      "memory.size"
 * @param label    "Memory size"
 * @param brief    how a change of it is called: "memory" in "memory 16 GB"
 * @param unit     base unit as a UCUM code, empty where there is none
 * @param naming   whether a configuration may be called by it; some facts are noted but tell a reader nothing
 */
public record FactKey(String key, String label, String brief, FactGroup group, Type type, String unit, boolean naming) {
    /** How a value is typed and compared. */
    public enum Type { INTEGER, DECIMAL, VERSION, CHOICE, YES_NO, TEXT }
}
