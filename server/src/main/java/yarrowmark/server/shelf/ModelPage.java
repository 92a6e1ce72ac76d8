package yarrowmark.server.shelf;

import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import yarrowmark.core.setup.BodySize;
import yarrowmark.server.shelf.configuration.Configuration;
import yarrowmark.server.shelf.model.EditableField;
import yarrowmark.server.shelf.model.Model;
import yarrowmark.server.shelf.model.ModelRow;
import yarrowmark.server.shelf.model.Unit;

/**
 * A model with its units and their configurations.
 *
 * @param derived what follows from the fields, such as the volume
 */
public record ModelPage(ModelRow model, List<FieldPart> fields, List<DerivedPart> derived, List<UnitPart> units) {
    /**
     * A value that can be changed in place.
     *
     * @param value   as it is kept; whoever changes it says which value they saw
     * @param example how it may be written
     */
    public record FieldPart(String name, String label, @Nullable String value, @Nullable String shown, String example) {
        static <T> FieldPart of(EditableField<T> field, T record) {
            String kept = field.value(record);
            return new FieldPart(field.name(), field.label(), kept, field.shown(kept), field.example());
        }
    }

    /** @param value in the unit */
    public record DerivedPart(String label, double value, String unit) {}

    public record UnitPart(
            long id,
            String label,
            boolean retired,
            @Nullable LocalDate dueBack,
            List<FieldPart> fields,
            List<ConfigurationPart> configurations) {}

    /** @param sessions how many were measured with it */
    public record ConfigurationPart(
            long id,
            @Nullable Long parentId,
            String name,
            Instant createdAt,
            boolean retired,
            @Nullable Long mergedInto,
            int sessions) {}

    static ModelPage of(
            Model model,
            List<EditableField<Model>> fields,
            List<Unit> units,
            List<EditableField<Unit>> unitFields,
            List<Configuration> configurations,
            Map<Long, Integer> sessions) {
        List<UnitPart> parts = units.stream()
                .map(u -> new UnitPart(
                        u.id(),
                        u.label(),
                        u.isRetired(),
                        u.dueBack(),
                        unitFields.stream().map(f -> FieldPart.of(f, u)).toList(),
                        configurations.stream()
                                .filter(c -> c.unit().id().equals(u.id()))
                                .map(c -> new ConfigurationPart(
                                        c.id(),
                                        c.parent() == null ? null : c.parent().id(),
                                        c.name(),
                                        c.createdAt(),
                                        c.isRetired(),
                                        c.mergedInto(),
                                        sessions.getOrDefault(c.id(), 0)))
                                .toList()))
                .toList();
        return new ModelPage(
                ModelRow.of(model, configurations.size()),
                fields.stream().map(f -> FieldPart.of(f, model)).toList(),
                derived(model),
                parts);
    }

    private static List<DerivedPart> derived(Model m) {
        List<DerivedPart> parts = new ArrayList<>();
        if (m.width() != null && m.depth() != null && m.height() != null) {
            BodySize size = new BodySize(
                    m.width().doubleValue(), m.depth().doubleValue(), m.height().doubleValue());
            parts.add(new DerivedPart("Volume", size.litres(), "l"));
            parts.add(new DerivedPart("Thickness", size.thickness() * 1000, "mm"));
        }
        return parts;
    }
}
