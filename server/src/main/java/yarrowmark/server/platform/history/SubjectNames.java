package yarrowmark.server.platform.history;

import java.util.Map;

/** A feature's part in saying what the things are called that changes are noted of, and where each is looked at. */
public interface SubjectNames {
    /**
     * By kind of thing, such as "model", a query that answers id, name, and address in the program for those in
     * {@code :ids}. What is gone is not in its answer.
     */
    Map<String, String> queries();
}
