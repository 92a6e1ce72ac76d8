package yarrowmark.server.shelf;

import static yarrowmark.server.platform.Require.require;

import java.util.List;
import java.util.Optional;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import yarrowmark.core.setup.FactKey;
import yarrowmark.core.setup.FactText;
import yarrowmark.core.setup.FactVocabulary;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.history.ChangeLog;
import yarrowmark.server.platform.history.Undoable;
import yarrowmark.server.shelf.configuration.ConfigurationFacts;
import yarrowmark.server.shelf.configuration.Configurations;
import yarrowmark.server.shelf.model.EditableField;
import yarrowmark.server.shelf.model.Model;
import yarrowmark.server.shelf.model.ModelFields;
import yarrowmark.server.shelf.model.Unit;
import yarrowmark.server.shelf.model.UnitFields;

/** How changes of models, units and configurations are taken back, and what they are called in the history. */
@Configuration
class ShelfUndo {
    private static final String RETIRED = "retired";

    private static Problem cannot(String field) {
        return Problem.conflict(
                "cannot-undo",
                "This change (" + field
                        + ") cannot be taken back: other things depend on it, or it is kept on purpose.");
    }

    @Bean
    Undoable modelUndo(Shelf shelf, ModelFields fields) {
        return new Undoable() {
            @Override
            public String subject() {
                return Shelf.MODEL;
            }

            @Override
            public String label(String field) {
                return fields.find(field).map(EditableField::label).orElse(field);
            }

            @Override
            public String shown(String field, String value) {
                return fields.find(field).map(f -> f.shown(value)).orElse(value);
            }

            @Override
            public void revert(long id, List<Noted> changes, String person) {
                for (Noted c : changes) {
                    Optional<EditableField<Model>> field = fields.find(c.field());
                    if (c.field().equals(ChangeLog.MADE)) {
                        shelf.removeModel(id, person);
                    } else if (c.field().equals(RETIRED)) {
                        shelf.retireModel(id, !Boolean.parseBoolean(c.to()), person);
                    } else if (c.field().equals("photo")) {
                        shelf.photograph(id, c.from(), person);
                    } else if (field.isPresent()) {
                        shelf.setModel(id, field.get(), c.to(), c.from(), person);
                    } else {
                        throw cannot(c.field());
                    }
                }
            }
        };
    }

    @Bean
    Undoable unitUndo(Shelf shelf, UnitFields fields) {
        return new Undoable() {
            @Override
            public String subject() {
                return Shelf.UNIT;
            }

            @Override
            public String label(String field) {
                return fields.find(field).map(EditableField::label).orElse(field);
            }

            @Override
            public void revert(long id, List<Noted> changes, String person) {
                for (Noted c : changes) {
                    Optional<EditableField<Unit>> field = fields.find(c.field());
                    if (c.field().equals(ChangeLog.MADE)) {
                        shelf.removeUnit(id, person);
                    } else if (c.field().equals(RETIRED)) {
                        shelf.retireUnit(id, !Boolean.parseBoolean(c.to()), person);
                    } else if (field.isPresent()) {
                        shelf.setUnit(id, field.get(), c.to(), c.from(), person);
                    } else {
                        throw cannot(c.field());
                    }
                }
            }
        };
    }

    @Bean
    Undoable configurationUndo(Configurations configurations, ConfigurationFacts configurationFacts) {
        return new Undoable() {
            @Override
            public String subject() {
                return Configurations.SUBJECT;
            }

            @Override
            public String label(String field) {
                return field.startsWith("correction: ")
                        ? "Correction of " + key(field).label().toLowerCase(java.util.Locale.ROOT)
                        : key(field).label();
            }

            @Override
            public String shown(String field, String value) {
                return FactText.of(key(field), value);
            }

            private FactKey key(String field) {
                return FactVocabulary.entry(field.replaceFirst("^(correction|picked): ", ""));
            }

            @Override
            public void revert(long id, List<Noted> changes, String person) {
                if (changes.stream().anyMatch(c -> c.field().equals(ChangeLog.MADE))) {
                    configurations.remove(id, person);
                } else if (changes.stream().anyMatch(c -> c.field().equals(RETIRED))) {
                    configurations.retire(
                            id, !Boolean.parseBoolean(changes.get(0).to()), person);
                } else if (changes.size() == 1 && changes.get(0).field().equals("name")) {
                    configurations.rename(
                            id,
                            require(changes.get(0).to()),
                            require(changes.get(0).from()),
                            person);
                } else if (changes.stream()
                        .allMatch(c -> FactVocabulary.find(c.field()).isPresent()
                                || !c.field().contains(": "))) {
                    configurationFacts.putBack(id, changes, person);
                } else {
                    throw cannot(changes.get(0).field());
                }
            }
        };
    }
}
