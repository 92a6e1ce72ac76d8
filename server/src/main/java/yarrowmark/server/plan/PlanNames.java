package yarrowmark.server.plan;

import java.util.Map;
import org.springframework.stereotype.Component;
import yarrowmark.server.platform.history.SubjectNames;

/** Plans, by name. */
@Component
class PlanNames implements SubjectNames {
    @Override
    public Map<String, String> queries() {
        return Map.of("plan", "select p.id, p.name, concat('/plans?edit=', p.id) from plan p where p.id in (:ids)");
    }
}
