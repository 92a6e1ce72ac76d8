package yarrowmark.server.ledger.sample;

import java.util.List;
import java.util.Set;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.catalog.MetricRow;

/** Which tests this shelf has results for, so that they are offered before all others. */
@RestController
class MeasuredTestsController {
    private final SampleCache samples;
    private final Catalog catalog;

    MeasuredTestsController(SampleCache samples, Catalog catalog) {
        this.samples = samples;
        this.catalog = catalog;
    }

    /** Ids of tests that anything has a counted score in. */
    @GetMapping("/api/tests/measured")
    List<Long> measured() {
        Set<Long> metrics = samples.measured();
        return catalog.metrics().stream()
                .filter(m -> metrics.contains(m.id()))
                .map(MetricRow::testId)
                .distinct()
                .sorted()
                .toList();
    }
}
