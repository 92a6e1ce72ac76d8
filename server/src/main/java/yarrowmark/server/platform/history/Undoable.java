package yarrowmark.server.platform.history;

import java.util.List;
import org.jspecify.annotations.Nullable;

/** A kind of record whose last change can be taken back. */
public interface Undoable {
    /** One value of a change, as it was noted. */
    record Noted(String field, @Nullable String from, @Nullable String to) {}

    /** The name under which its changes are noted. */
    String subject();

    /** How a noted value of a field is shown. */
    default String shown(String field, String value) {
        return value;
    }

    /** A field's name for people. */
    default String label(String field) {
        return field;
    }

    /**
     * Takes the changes back and notes that as a change of its own.
     *
     * @throws Problem where something depends on them, or where the state is no longer the one they led to
     */
    void revert(long subjectId, List<Noted> changes, String person);
}
