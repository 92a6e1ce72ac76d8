package yarrowmark.server.catalog;

import java.util.Map;

/**
 * A purpose with what it says.
 *
 * @param weights of groups
 * @param suites  by suite id; 1 where there is none
 * @param tests   by test id; 1 where there is none
 * @param usual   the one that everybody has and nobody can change
 */
public record PurposeRow(
        long id,
        String name,
        Map<TestGroup, Double> weights,
        Map<Long, Double> suites,
        Map<Long, Double> tests,
        boolean usual) {
    static PurposeRow of(Purpose p) {
        PurposeWeighing weighing = p.weighing();
        return new PurposeRow(
                p.id(),
                p.name(),
                weighing.groups(),
                weighing.suites(),
                weighing.tests(),
                p.name().equals(Purposes.ALL_ROUND));
    }

    public PurposeWeighing weighing() {
        return new PurposeWeighing(weights, suites, tests);
    }
}
