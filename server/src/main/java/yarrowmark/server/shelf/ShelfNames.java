package yarrowmark.server.shelf;

import java.util.Map;
import org.springframework.stereotype.Component;
import yarrowmark.server.platform.history.SubjectNames;

/** What changes of the shelf are noted of, by name. */
@Component
class ShelfNames implements SubjectNames {
    @Override
    public Map<String, String> queries() {
        return Map.of(
                "model",
                "select m.id, concat(k.name, ' ', m.name), concat('/shelf/models/', m.id) from model m join maker k on k.id = m.maker_id where m.id in (:ids)",
                "unit",
                "select u.id, concat(u.label, ' of ', k.name, ' ', m.name), concat('/shelf/models/', m.id) from unit u join model m on m.id = u.model_id join maker k on k.id = m.maker_id where u.id in (:ids)",
                "configuration",
                "select c.id, concat(k.name, ' ', m.name, ', ', c.name), concat('/shelf/configurations/', c.id) from configuration c join unit u on u.id = c.unit_id join model m on m.id = u.model_id join maker k on k.id = m.maker_id where c.id in (:ids)");
    }
}
