package yarrowmark.server.analysis;

import static yarrowmark.server.platform.Require.require;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.core.measure.Direction;
import yarrowmark.core.measure.Merit;
import yarrowmark.core.measure.Scale;
import yarrowmark.core.setup.FactText;
import yarrowmark.core.setup.FactVocabulary;
import yarrowmark.server.catalog.Catalog;
import yarrowmark.server.catalog.MetricRow;
import yarrowmark.server.catalog.TestGroup;
import yarrowmark.server.ledger.sample.Samples;
import yarrowmark.server.shelf.Claims;
import yarrowmark.server.shelf.ModelPage;
import yarrowmark.server.shelf.ShelfPages;
import yarrowmark.server.shelf.configuration.KnownFacts;
import yarrowmark.server.standing.StandingPlaces;

/** What the scores say of one model: its best places, and its maker's claims beside what was measured. */
@Service
class ModelOverview {

    /** @param of how many configurations have a place in it */
    record BestPlace(
            long metricId,
            String test,
            String suite,
            TestGroup group,
            long configurationId,
            String configuration,
            int order,
            int best,
            int worst,
            int of) {}

    /**
     * A claim beside what was found.
     *
     * @param found           what the best configuration measured, or what configurations are; null while the claim is open
     * @param foundPerClaimed measured over claimed, turned so that above 1 is better than claimed; null for facts and open claims
     * @param kept            whether it was found to hold; null while it is open
     */
    record ClaimCheck(
            Claims.ClaimRow claim,
            @Nullable String found,
            @Nullable Double measured,
            @Nullable Double foundPerClaimed,
            @Nullable Boolean kept,
            List<String> configurations) {}

    private final ShelfPages shelf;
    private final Claims claims;
    private final KnownFacts knownFacts;
    private final Catalog catalog;
    private final Samples samples;
    private final StandingPlaces standings;

    ModelOverview(
            ShelfPages shelf,
            Claims claims,
            KnownFacts knownFacts,
            Catalog catalog,
            Samples samples,
            StandingPlaces standings) {
        this.shelf = shelf;
        this.claims = claims;
        this.knownFacts = knownFacts;
        this.catalog = catalog;
        this.samples = samples;
        this.standings = standings;
    }

    /** Every test that others have run as well, the ones in which a configuration of this model stands best first. */
    @Transactional(readOnly = true)
    public List<BestPlace> bestPlaces(long modelId) {
        Map<Long, String> own = configurations(modelId);
        List<MetricRow> metrics = catalog.metrics().stream()
                .filter(m -> m.main() && m.scale() == Scale.RATIO)
                .toList();
        Set<Long> measured = samples
                .ofMetrics(metrics.stream().map(MetricRow::id).toList())
                .stream()
                .filter(s -> own.containsKey(s.configurationId()))
                .map(Samples.SampleRow::metricId)
                .collect(Collectors.toSet());
        List<BestPlace> places = new ArrayList<>();
        for (MetricRow m : metrics) {
            if (measured.contains(m.id())) {
                List<StandingPlaces.Placed> placed = standings.inMetric(m.id());
                placed.stream()
                        .filter(r -> own.containsKey(r.configurationId()))
                        .min(Comparator.comparing(StandingPlaces.Placed::best)
                                .thenComparing(StandingPlaces.Placed::worst))
                        .ifPresent(r -> places.add(new BestPlace(
                                m.id(),
                                m.test(),
                                m.suite(),
                                m.group(),
                                r.configurationId(),
                                r.configuration(),
                                r.order(),
                                r.best(),
                                r.worst(),
                                placed.size())));
            }
        }
        return places.stream()
                // A place alone says nothing.
                .filter(p -> p.of() > 1)
                .sorted(Comparator.comparingDouble((BestPlace p) -> (p.best() + p.worst()) / 2.0 / p.of()))
                .toList();
    }

    @Transactional(readOnly = true)
    public List<ClaimCheck> claims(long modelId) {
        Map<Long, String> own = configurations(modelId);
        Map<Long, Map<String, String>> facts = knownFacts.of(own.keySet());
        return claims.of(modelId).stream()
                .map(c -> c.metric() == null ? fact(c, own, facts) : score(c, c.metric(), own))
                .toList();
    }

    private ClaimCheck score(Claims.ClaimRow claim, MetricRow metric, Map<Long, String> own) {
        return samples.ofMetrics(List.of(metric.id())).stream()
                .filter(s -> own.containsKey(s.configurationId()))
                .max(Comparator.comparingDouble(s -> s.sample().mean()))
                .map(s -> {
                    double value = Merit.toValue(s.sample().mean(), metric.direction(), metric.scale());
                    double ratio = value / Double.parseDouble(claim.value());
                    double better = metric.direction() == Direction.MORE_IS_BETTER ? ratio : 1 / ratio;
                    return new ClaimCheck(
                            claim, null, value, better, better >= 1, List.of(own.get(s.configurationId())));
                })
                .orElseGet(() -> new ClaimCheck(claim, null, null, null, null, List.of()));
    }

    private static ClaimCheck fact(Claims.ClaimRow claim, Map<Long, String> own, Map<Long, Map<String, String>> facts) {
        Map<String, List<String>> found = facts.entrySet().stream()
                .filter(of -> own.containsKey(of.getKey()) && of.getValue().containsKey(require(claim.factKey())))
                .map(of -> Map.entry(require(of.getValue(), require(claim.factKey())), require(own, of.getKey())))
                .collect(Collectors.groupingBy(
                        Map.Entry::getKey, Collectors.mapping(Map.Entry::getValue, Collectors.toList())));
        if (found.isEmpty()) {
            return new ClaimCheck(claim, null, null, null, null, List.of());
        }
        String shown = found.keySet().stream()
                .sorted()
                .map(v -> FactText.of(FactVocabulary.entry(require(claim.factKey())), v))
                .collect(Collectors.joining(", "));
        return new ClaimCheck(
                claim,
                shown,
                null,
                null,
                found.keySet().equals(Set.of(claim.value())),
                found.values().stream().flatMap(List::stream).toList());
    }

    private Map<Long, String> configurations(long modelId) {
        ModelPage page = shelf.model(modelId);
        return page.units().stream()
                .flatMap(u -> u.configurations().stream())
                .filter(c -> c.mergedInto() == null)
                .collect(Collectors.toMap(ModelPage.ConfigurationPart::id, ModelPage.ConfigurationPart::name));
    }
}
