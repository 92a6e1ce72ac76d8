package yarrowmark.server.shelf;

import static yarrowmark.server.platform.Require.require;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.core.setup.FactKey;
import yarrowmark.core.setup.FactText;
import yarrowmark.core.setup.FactVocabulary;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.history.ChangeLog;
import yarrowmark.server.shelf.model.EditableField;
import yarrowmark.server.shelf.model.ModelRepository;

/** What makers claim, with where they claim it. */
@Service
public class Claims {
    /**
     * @param factKey  the fact that is claimed; null for a score
     * @param metric   the metric a score is claimed in; null for a fact
     * @param value    in the fact's base unit, or a number in the metric's unit
     * @param shown    as people write it
     */
    public record ClaimRow(
            long id,
            String about,
            @Nullable String factKey,
            @Nullable MetricRow metric,
            String value,
            String shown,
            String source) {}

    private final ClaimRepository claims;
    private final ModelRepository models;
    private final Catalog catalog;
    private final ChangeLog changes;

    Claims(ClaimRepository claims, ModelRepository models, Catalog catalog, ChangeLog changes) {
        this.claims = claims;
        this.models = models;
        this.catalog = catalog;
        this.changes = changes;
    }

    @Transactional(readOnly = true)
    public List<ClaimRow> of(long modelId) {
        List<Claim> found = claims.findByModelIdOrderById(modelId);
        List<MetricRow> metrics = found.stream().anyMatch(c -> c.metricId != null) ? catalog.metrics() : List.of();
        return found.stream().map(c -> row(c, metrics)).toList();
    }

    private static ClaimRow row(Claim c, List<MetricRow> metrics) {
        if (c.metricId == null) {
            FactKey key = FactVocabulary.entry(require(c.factKey));
            return new ClaimRow(c.id, key.label(), c.factKey, null, c.value, FactText.of(key, c.value), c.source);
        }
        MetricRow metric =
                metrics.stream().filter(m -> m.id() == c.metricId).findFirst().orElseThrow();
        return new ClaimRow(
                c.id,
                metric.test(),
                null,
                metric,
                c.value,
                c.value + (metric.unit().equals("1") ? "" : " " + metric.unit()),
                c.source);
    }

    /** @param text as typed: a fact with its unit, or a number in the metric's unit */
    @Transactional
    public void add(
            long modelId,
            @Nullable String factKey,
            @Nullable Long metricId,
            String text,
            String source,
            String person) {
        models.findById(modelId).orElseThrow(() -> Problem.notFound(Shelf.MODEL, modelId));
        if ((factKey == null) == (metricId == null)) {
            throw Problem.invalid("which-claim", "A claim is about a fact or about a metric, one of the two.");
        }
        Claim claim = new Claim();
        claim.modelId = modelId;
        claim.factKey = factKey;
        claim.metricId = metricId;
        claim.source = source.strip();
        claim.value = metricId == null
                ? EditableField.understood(FactVocabulary.entry(require(factKey)), text)
                : number(metricId, text);
        claims.saveAndFlush(claim);
        ClaimRow row = row(claim, catalog.metrics());
        changes.note(
                person,
                Shelf.MODEL,
                modelId,
                "claim",
                null,
                row.about() + " " + row.shown() + " (" + row.source() + ")");
    }

    private String number(long metricId, String text) {
        MetricRow metric = catalog.metrics().stream()
                .filter(m -> m.id() == metricId)
                .findFirst()
                .orElseThrow(() -> Problem.notFound("metric", metricId));
        String digits = text.strip()
                .replaceFirst("\\s*" + java.util.regex.Pattern.quote(metric.unit()) + "$", "")
                .replaceAll("[\\s'’\u202f]", "")
                .replace(',', '.');
        try {
            double value = Double.parseDouble(digits);
            if (value > 0 && value < Double.POSITIVE_INFINITY) {
                return new java.math.BigDecimal(digits).stripTrailingZeros().toPlainString();
            }
        } catch (NumberFormatException e) {
            // Told below, together with numbers that are out of range.
        }
        throw Problem.invalid(
                "not-understood",
                "\"" + text + "\" is no value of " + metric.test() + ". Write a number above 0 in " + metric.unit()
                        + ".");
    }

    @Transactional
    public void remove(long modelId, long claimId, String person) {
        Claim claim = claims.findById(claimId)
                .filter(c -> c.modelId == modelId)
                .orElseThrow(() -> Problem.notFound("claim", claimId));
        ClaimRow row = row(claim, catalog.metrics());
        changes.note(
                person,
                Shelf.MODEL,
                modelId,
                "claim",
                row.about() + " " + row.shown() + " (" + row.source() + ")",
                null);
        claims.delete(claim);
    }
}
