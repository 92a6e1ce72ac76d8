package yarrowmark.server.shelf.model;

import java.time.Clock;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Component;
import yarrowmark.server.platform.Problem;

/** What people may change of a unit, in the order it is shown. */
@Component
public class UnitFields {
    private final List<EditableField<Unit>> all;

    UnitFields(Clock clock) {
        all = List.of(
                EditableField.<Unit>text("label", "Label", "Unit 1", 80, u -> u.label, (u, v) -> u.label = v)
                        .mandatory(),
                EditableField.text("serial", "Serial or asset tag", "", 120, u -> u.serial, (u, v) -> u.serial = v),
                EditableField.text(
                        "origin", "Came from", "bought, lent by the maker", 300, u -> u.origin, (u, v) -> u.origin = v),
                new EditableField<>(
                        "dueBack",
                        "Must go back",
                        "2026-12-01",
                        40,
                        false,
                        u -> u.dueBack == null ? null : u.dueBack.toString(),
                        (u, v) -> u.dueBack = v == null ? null : LocalDate.parse(v),
                        text -> Dates.read(text, "The day a unit goes back", clock),
                        v -> v));
    }

    public List<EditableField<Unit>> all() {
        return all;
    }

    public Optional<EditableField<Unit>> find(String name) {
        return all.stream().filter(f -> f.name().equals(name)).findFirst();
    }

    public EditableField<Unit> field(String name) {
        return find(name).orElseThrow(() -> Problem.notFound("field of a unit", "\"" + name + "\""));
    }
}
