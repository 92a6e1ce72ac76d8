package yarrowmark.server.access;

import java.util.Map;
import org.springframework.stereotype.Component;
import yarrowmark.server.platform.history.SubjectNames;

/** People, by name. */
@Component
class PersonNames implements SubjectNames {
    @Override
    public Map<String, String> queries() {
        return Map.of("person", "select p.id, p.name, '/people' from person p where p.id in (:ids)");
    }
}
