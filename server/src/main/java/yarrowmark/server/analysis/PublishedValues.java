package yarrowmark.server.analysis;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.reference.References;
import yarrowmark.server.shelf.configuration.ConfigurationRow;

/** What others published for models that are shown, in the tests that are shown. */
@Component
class PublishedValues {
    private final References references;

    PublishedValues(References references) {
        this.references = references;
    }

    /** @param of whose models */
    List<Values.PublishedValue> of(Collection<MetricRow> metrics, Collection<ConfigurationRow> of) {
        Set<Long> shown = metrics.stream().map(MetricRow::id).collect(Collectors.toSet());
        List<Values.PublishedValue> found = new ArrayList<>();
        Map<Long, List<References.ReferenceRow>> byModel =
                references.ofModels(of.stream().map(ConfigurationRow::modelId).collect(Collectors.toSet()));
        byModel.forEach((model, rows) -> rows.stream()
                .filter(r -> shown.contains(r.metric().id()))
                .forEach(r -> found.add(new Values.PublishedValue(
                        model, r.metric().id(), r.value(), r.source(), r.publishedOn(), r.results()))));
        return found;
    }
}
