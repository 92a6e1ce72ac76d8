package yarrowmark.server.ledger.record;

import java.util.Map;
import org.springframework.stereotype.Component;
import yarrowmark.server.platform.history.SubjectNames;

/** What changes of the ledger are noted of, by name. */
@Component
class LedgerNames implements SubjectNames {
    @Override
    public Map<String, String> queries() {
        return Map.of(
                "session",
                "select s.id, concat('the session of ', date_format(s.started_at, '%Y-%m-%d'), ' on ', concat(k.name, ' ', m.name, ', ', c.name)), concat('/ledger?session=', s.id) from session s join configuration c on c.id = s.configuration_id join unit u on u.id = c.unit_id join model m on m.id = u.model_id join maker k on k.id = m.maker_id where s.id in (:ids)",
                "reading",
                "select r.id, concat(t.name, ' on ', concat(k.name, ' ', m.name, ', ', c.name)), concat('/ledger?reading=', r.id) from reading r join metric x on x.id = r.metric_id join test t on t.id = x.test_id join configuration c on c.id = r.configuration_id join unit u on u.id = c.unit_id join model m on m.id = u.model_id join maker k on k.id = m.maker_id where r.id in (:ids)");
    }
}
