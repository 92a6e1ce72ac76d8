package yarrowmark.server.catalog;

import java.util.Map;
import org.springframework.stereotype.Component;
import yarrowmark.server.platform.history.SubjectNames;

/** What changes of the catalogue are noted of, by name. */
@Component
class CatalogNames implements SubjectNames {
    @Override
    public Map<String, String> queries() {
        return Map.of(
                "suite",
                "select s.id, s.name, '/suites' from suite s where s.id in (:ids)",
                "suite version",
                "select v.id, concat(s.name, ' ', v.version), concat('/suites/', v.id) from suite_version v join suite s on s.id = v.suite_id where v.id in (:ids)",
                "purpose",
                "select p.id, p.name, concat('/standings?purpose=', p.id) from purpose p where p.id in (:ids)");
    }
}
