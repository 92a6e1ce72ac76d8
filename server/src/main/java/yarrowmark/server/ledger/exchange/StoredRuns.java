package yarrowmark.server.ledger.exchange;

import jakarta.persistence.EntityManager;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import yarrowmark.server.catalog.TestRow;
import yarrowmark.server.ledger.exchange.ImportCells.Refused;

/** Runs that the ledger has already, so that no row of a file is stored twice. */
final class StoredRuns {
    private final EntityManager entities;
    private final Map<Long, Map<List<Object>, Optional<Double>>> stored = new HashMap<>();

    StoredRuns(EntityManager entities) {
        this.entities = entities;
    }

    /** Whether the ledger has this very row; where it has something else for the run, the row is refused. */
    boolean has(ImportRow t, Optional<Long> configuration, @Nullable TestRow test) throws Refused {
        if (configuration.isEmpty() || test == null) {
            return false;
        }
        Map<List<Object>, Optional<Double>> runs = stored.computeIfAbsent(configuration.get(), this::runsOf);
        List<Object> run = List.of(test.id(), t.place().started(), t.run(), t.attempt());
        if (!runs.containsKey(run)) {
            return false;
        }
        long metric = test.metrics().stream()
                .filter(m -> m.name().equals(t.measure().name()))
                .findFirst()
                .orElse(test.metrics().get(0))
                .id();
        Optional<Double> value =
                t.value() == null ? runs.get(run) : runs.getOrDefault(List.of(run, metric), Optional.empty());
        if (!value.equals(Optional.ofNullable(t.value()))) {
            throw new Refused(
                    "value",
                    t.row().cell("value"),
                    "The ledger has " + value.map(v -> "the value " + v).orElse("no value") + " for this very run.");
        }
        return true;
    }

    /** Every run of a configuration with its value, and every reading under its metric: one question for all rows of it. */
    private Map<List<Object>, Optional<Double>> runsOf(long configurationId) {
        Map<List<Object>, Optional<Double>> runs = new HashMap<>();
        entities.createQuery(
                        """
                select r.testId, s.startedAt, r.runNumber, r.attempt, rd.value, rd.metricId from Run r join Session s on s.id = r.sessionId left join Reading rd on rd.runId = r.id
                where r.configurationId = :configuration""",
                        Object[].class)
                .setParameter("configuration", configurationId)
                .getResultList()
                .forEach(x -> {
                    List<Object> run = List.of(x[0], x[1], x[2], x[3]);
                    runs.putIfAbsent(run, Optional.ofNullable((Double) x[4]));
                    if (x[5] != null) {
                        runs.put(List.of(run, x[5]), Optional.of((Double) x[4]));
                    }
                });
        return runs;
    }
}
