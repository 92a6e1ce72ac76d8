package yarrowmark.server.shelf;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** A model with its units and their configurations. */
public record ModelPage(ModelRow model, List<UnitPart> units) {
    public record UnitPart(long id, String label, List<ConfigurationPart> configurations) { }

    public record ConfigurationPart(long id, @Nullable Long parentId, String name, Instant createdAt) { }

    static ModelPage of(Model model, List<Unit> units, List<Configuration> configurations) {
        List<UnitPart> parts = units.stream().map(u -> new UnitPart(u.id(), u.label(), configurations.stream()
            .filter(c -> c.unit().id().equals(u.id()))
            .map(c -> new ConfigurationPart(c.id(), c.parent() == null ? null : c.parent().id(), c.name(), c.createdAt()))
            .toList())).toList();
        return new ModelPage(ModelRow.of(model, configurations.size()), parts);
    }
}
