package yarrowmark.server.writeup;

import java.util.Map;
import org.springframework.stereotype.Component;
import yarrowmark.server.platform.history.SubjectNames;

/** Write-ups, by title. */
@Component
class WriteUpNames implements SubjectNames {
    @Override
    public Map<String, String> queries() {
        return Map.of(
                "write-up",
                "select w.id, w.title, concat('/write-ups/', w.id) from write_up w where w.removed_at is null and w.id in (:ids)");
    }
}
