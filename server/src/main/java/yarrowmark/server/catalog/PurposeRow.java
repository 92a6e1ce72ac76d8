package yarrowmark.server.catalog;

import java.util.Map;

/** A purpose with the weight of each group it weighs. */
public record PurposeRow(long id, String name, Map<TestGroup, Double> weights) {
    static PurposeRow of(Purpose p) {
        return new PurposeRow(p.id(), p.name(), Map.copyOf(p.weights()));
    }
}
