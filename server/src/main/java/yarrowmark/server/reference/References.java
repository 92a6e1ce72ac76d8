package yarrowmark.server.reference;

import static yarrowmark.server.platform.Require.require;

import jakarta.persistence.EntityManager;
import java.time.Clock;
import java.time.LocalDate;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.core.entry.KindText;
import yarrowmark.core.entry.ScoreText;
import yarrowmark.core.measure.Kind;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.history.ChangeLog;
import yarrowmark.server.shelf.ShelfPages;

/** Scores that others published for a model. They are shown, and enter no sample, ranking or mean. */
@Service
public class References {
    /**
     * @param results     number of results behind it, where the source says
     * @param publishedOn where the source says
     */
    public record ReferenceRow(
            long id,
            long modelId,
            MetricRow metric,
            double value,
            double resolution,
            String source,
            @Nullable LocalDate publishedOn,
            @Nullable Integer results,
            String person) {}

    /** @param text the value as a person writes it */
    public record NewReference(
            long metricId, String text, String source, @Nullable LocalDate publishedOn, @Nullable Integer results) {}

    private final EntityManager entities;
    private final Catalog catalog;
    private final ShelfPages shelf;
    private final ChangeLog changes;
    private final Clock clock;

    References(EntityManager entities, Catalog catalog, ShelfPages shelf, ChangeLog changes, Clock clock) {
        this.entities = entities;
        this.catalog = catalog;
        this.shelf = shelf;
        this.changes = changes;
        this.clock = clock;
    }

    @Transactional
    public long add(long modelId, NewReference r, String person) {
        shelf.model(modelId);
        MetricRow metric = catalog.metrics().stream()
                .filter(m -> m.id() == r.metricId())
                .findFirst()
                .orElseThrow(() ->
                        Problem.invalid("unknown-metric", "There is no metric " + r.metricId() + " in the catalogue."));
        ScoreText.Said said = KindText.read(
                        r.text(),
                        metric.kind().isSeries() ? Kind.NUMBER : metric.kind(),
                        metric.unit(),
                        metric.choices())
                .said();
        if (!(said instanceof ScoreText.Value v)) {
            throw Problem.invalid(
                    "not-understood",
                    said instanceof ScoreText.NotUnderstood not ? not.reason() : "A published score is a value.");
        }
        if (metric.unusable(v.value()) != null) {
            throw Problem.invalid("not-a-score", require(metric.unusable(v.value())));
        }
        if (r.publishedOn() != null
                && r.publishedOn().isAfter(LocalDate.now(clock).plusDays(1))) {
            throw Problem.invalid(
                    "in-the-future",
                    "It cannot have been published on " + r.publishedOn() + ", which is still to come.");
        }
        ReferenceScore score = new ReferenceScore();
        score.modelId = modelId;
        score.metricId = metric.id();
        score.value = v.value();
        score.resolution = v.resolution();
        score.source = r.source().strip();
        score.publishedOn = r.publishedOn();
        score.results = r.results();
        score.person = person;
        score.at = clock.instant();
        entities.persist(score);
        changes.note(
                person,
                "published score",
                score.id,
                "value",
                null,
                metric.name() + ": " + r.text().strip() + ", " + score.source);
        return score.id;
    }

    @Transactional
    void remove(long id, boolean removed, String person) {
        ReferenceScore score = entities.find(ReferenceScore.class, id);
        if (score == null) {
            throw Problem.notFound("published score", id);
        }
        if (removed != (score.removedAt != null)) {
            score.removedAt = removed ? clock.instant() : null;
            String words = Double.toString(score.value) + ", " + score.source;
            changes.note(person, "published score", id, "value", removed ? words : null, removed ? null : words);
        }
    }

    @Transactional(readOnly = true)
    public List<ReferenceRow> ofModel(long modelId) {
        return rows("r.modelId", List.of(modelId));
    }

    @Transactional(readOnly = true)
    public List<ReferenceRow> ofMetric(long metricId) {
        return rows("r.metricId", List.of(metricId));
    }

    /** By model. */
    @Transactional(readOnly = true)
    public Map<Long, List<ReferenceRow>> ofModels(Collection<Long> modelIds) {
        return rows("r.modelId", modelIds).stream().collect(Collectors.groupingBy(ReferenceRow::modelId));
    }

    private List<ReferenceRow> rows(String field, Collection<Long> ids) {
        List<ReferenceScore> found = entities.createQuery(
                        "select r from ReferenceScore r where " + field
                                + " in :ids and r.removedAt is null order by r.id",
                        ReferenceScore.class)
                .setParameter("ids", ids)
                .getResultList();
        if (found.isEmpty()) {
            return List.of();
        }
        Map<Long, MetricRow> metrics = catalog.metrics().stream().collect(Collectors.toMap(MetricRow::id, m -> m));
        return found.stream()
                .map(r -> new ReferenceRow(
                        r.id,
                        r.modelId,
                        require(metrics, r.metricId),
                        r.value,
                        r.resolution,
                        r.source,
                        r.publishedOn,
                        r.results,
                        r.person))
                .toList();
    }
}
