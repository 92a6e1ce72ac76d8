package yarrowmark.server.shelf;

import static yarrowmark.server.platform.Require.require;

import java.math.BigDecimal;
import java.time.Clock;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.history.ChangeLog;
import yarrowmark.server.platform.records.Locks;
import yarrowmark.server.shelf.configuration.ConfigurationRepository;
import yarrowmark.server.shelf.model.Dates;
import yarrowmark.server.shelf.model.DeviceClass;
import yarrowmark.server.shelf.model.EditableField;
import yarrowmark.server.shelf.model.Maker;
import yarrowmark.server.shelf.model.MakerRepository;
import yarrowmark.server.shelf.model.Model;
import yarrowmark.server.shelf.model.ModelFields;
import yarrowmark.server.shelf.model.ModelRepository;
import yarrowmark.server.shelf.model.ModelTouched;
import yarrowmark.server.shelf.model.Unit;
import yarrowmark.server.shelf.model.UnitFields;
import yarrowmark.server.shelf.model.UnitRepository;

/** The shelf: models and their units, and what is asked about them. */
@Service
public class Shelf {
    static final String MODEL = "model";
    static final String UNIT = "unit";

    private final ModelRepository models;
    private final MakerRepository makers;
    private final UnitRepository units;
    private final ConfigurationRepository configurations;
    private final ModelFields modelFields;
    private final UnitFields unitFields;
    private final Locks locks;
    private final ChangeLog changes;
    private final ApplicationEventPublisher events;
    private final Clock clock;

    Shelf(
            ModelRepository models,
            MakerRepository makers,
            UnitRepository units,
            ConfigurationRepository configurations,
            ModelFields modelFields,
            UnitFields unitFields,
            Locks locks,
            ChangeLog changes,
            ApplicationEventPublisher events,
            Clock clock) {
        this.models = models;
        this.locks = locks;
        this.makers = makers;
        this.units = units;
        this.configurations = configurations;
        this.modelFields = modelFields;
        this.unitFields = unitFields;
        this.changes = changes;
        this.events = events;
        this.clock = clock;
    }

    /** What a person says about a new model. */
    public record ModelFacts(
            String maker,
            String name,
            DeviceClass deviceClass,
            @Nullable BigDecimal price,
            @Nullable String currency,
            @Nullable LocalDate released) {}

    @Transactional
    public long make(ModelFacts facts, String person) {
        Maker maker = modelFields.maker(facts.maker().strip());
        String name = facts.name().strip();
        Model model = new Model(maker, name, facts.deviceClass());
        refuseTwin(model);
        model.offered(
                facts.price(),
                facts.currency(),
                facts.released() == null ? null : Dates.checked(facts.released(), "A release date", clock));
        models.saveAndFlush(model);
        changes.note(person, MODEL, model.id(), ChangeLog.MADE, null, model.fullName());
        events.publishEvent(new ModelTouched(model.id()));
        return model.id();
    }

    /**
     * Changes one field of a model.
     *
     * @param seen  the kept value the person saw; another one now means that somebody else changed it since
     * @param typed as typed; null or blank empties the field
     */
    @Transactional
    public void changeModel(long id, String field, @Nullable String seen, @Nullable String typed, String person) {
        EditableField<Model> f = modelFields.field(field);
        setModel(id, f, seen, f.kept(typed), person);
    }

    /** @param kept already as it is kept: what somebody typed was read, or an undo puts it back */
    @Transactional
    void setModel(long id, EditableField<Model> field, @Nullable String seen, @Nullable String kept, String person) {
        Model model = locks.lock(Model.class, id).orElseThrow(() -> Problem.notFound(MODEL, id));
        set(MODEL, id, model, field, seen, kept, person);
        refuseTwin(model);
        models.saveAndFlush(model);
        events.publishEvent(new ModelTouched(id));
    }

    @Transactional
    public void changeUnit(long id, String field, @Nullable String seen, @Nullable String typed, String person) {
        EditableField<Unit> f = unitFields.field(field);
        setUnit(id, f, seen, f.kept(typed), person);
    }

    @Transactional
    void setUnit(long id, EditableField<Unit> field, @Nullable String seen, @Nullable String kept, String person) {
        Unit unit = locks.lock(Unit.class, id).orElseThrow(() -> Problem.notFound(UNIT, id));
        set(UNIT, id, unit, field, seen, kept, person);
        refuseTwin(unit);
        units.saveAndFlush(unit);
        events.publishEvent(new ModelTouched(unit.model().id()));
    }

    /** The one way in which a field changes, also when a change is taken back. */
    private <T> void set(
            String subject,
            long id,
            T record,
            EditableField<T> field,
            @Nullable String seen,
            @Nullable String kept,
            String person) {
        String now = field.value(record);
        if (!java.util.Objects.equals(now, seen)) {
            Problem clash = Problem.conflict(
                    "changed-meanwhile",
                    "Somebody else changed " + field.label().toLowerCase(java.util.Locale.ROOT)
                            + " since you opened it. It is now "
                            + (now == null ? "empty" : "\"" + field.shown(now) + "\"")
                            + ". What you typed is still here: keep either.");
            throw now == null ? clash : clash.with("now", now).with("nowShown", require(field.shown(now)));
        }
        changes.note(person, subject, id, field.name(), now, kept);
        field.put(record, kept);
    }

    @Transactional
    public long addUnit(long modelId, String label, String person) {
        // Two devices of a new model come at once: each would add the first unit.
        Model model = locks.lock(Model.class, modelId).orElseThrow(() -> Problem.notFound(MODEL, modelId));
        Unit unit = new Unit(model, label.strip());
        refuseTwin(unit);
        units.saveAndFlush(unit);
        changes.note(person, UNIT, unit.id(), ChangeLog.MADE, null, unit.label());
        events.publishEvent(new ModelTouched(modelId));
        return unit.id();
    }

    @Transactional(readOnly = true)
    public Optional<Long> findModel(String maker, String name) {
        return makers.findByName(maker)
                .flatMap(m -> models.findByMakerAndName(m, name))
                .map(Model::id);
    }

    @Transactional(readOnly = true)
    public Optional<Long> findUnit(long modelId, String label) {
        return units.findByModelIdAndLabel(modelId, label).map(Unit::id);
    }

    /** The model's first unit that is not retired, or a new one where it has none. */
    @Transactional
    public long firstUnit(long modelId, String person) {
        locks.lock(Model.class, modelId).orElseThrow(() -> Problem.notFound(MODEL, modelId));
        List<Unit> all = units.findByModelIdOrderById(modelId);
        return all.stream()
                .filter(u -> !u.isRetired())
                .findFirst()
                .map(Unit::id)
                .orElseGet(() -> addUnit(modelId, "Unit " + (all.size() + 1), person));
    }

    /** @throws Problem when the unit is not one of this model's */
    @Transactional(readOnly = true)
    public void checkUnit(long unitId, long modelId) {
        Unit unit = units.findById(unitId).orElseThrow(() -> Problem.notFound(UNIT, unitId));
        if (!unit.model().id().equals(modelId)) {
            throw Problem.invalid("unit-of-another-model", "Unit " + unitId + " belongs to another model.");
        }
    }

    @Transactional
    public void retireModel(long id, boolean retired, String person) {
        Model model = locks.lock(Model.class, id).orElseThrow(() -> Problem.notFound(MODEL, id));
        changes.note(person, MODEL, id, "retired", model.isRetired(), retired);
        model.retire(retired ? clock.instant() : null);
        events.publishEvent(new ModelTouched(id));
    }

    @Transactional
    public void retireUnit(long id, boolean retired, String person) {
        Unit unit = locks.lock(Unit.class, id).orElseThrow(() -> Problem.notFound(UNIT, id));
        changes.note(person, UNIT, id, "retired", unit.isRetired(), retired);
        unit.retire(retired ? clock.instant() : null);
        events.publishEvent(new ModelTouched(unit.model().id()));
    }

    /** Takes a model out for good; only where nothing hangs on it. */
    @Transactional
    public void removeModel(long id, String person) {
        Model model = locks.lock(Model.class, id).orElseThrow(() -> Problem.notFound(MODEL, id));
        if (units.existsByModelId(id)) {
            throw Problem.conflict(
                    "has-units",
                    model.fullName()
                            + " has units. Retire it instead: it then stays out of the way, and its scores stay.");
        }
        changes.note(person, MODEL, id, "removed", model.fullName(), null);
        models.delete(model);
        events.publishEvent(new ModelTouched(id));
    }

    @Transactional
    public void removeUnit(long id, String person) {
        Unit unit = locks.lock(Unit.class, id).orElseThrow(() -> Problem.notFound(UNIT, id));
        if (configurations.existsByUnitId(id)) {
            throw Problem.conflict(
                    "has-configurations", "\"" + unit.label() + "\" has configurations. Retire it instead.");
        }
        changes.note(person, UNIT, id, "removed", unit.label(), null);
        units.delete(unit);
        events.publishEvent(new ModelTouched(unit.model().id()));
    }

    @Transactional
    public void photograph(long id, @Nullable String hash, String person) {
        Model model = locks.lock(Model.class, id).orElseThrow(() -> Problem.notFound(MODEL, id));
        changes.note(person, MODEL, id, "photo", model.photoHash(), hash);
        model.photograph(hash);
    }

    private void refuseTwin(Model model) {
        models.findByMakerAndName(model.maker(), model.name())
                .filter(other -> !other.id().equals(model.id()))
                .ifPresent(other -> {
                    throw Problem.conflict("model-exists", other.fullName() + " is on the shelf already.")
                            .with("modelId", other.id());
                });
    }

    private void refuseTwin(Unit unit) {
        units.findByModelIdAndLabel(unit.model().id(), unit.label())
                .filter(other -> !other.id().equals(unit.id()))
                .ifPresent(other -> {
                    throw Problem.conflict(
                            "unit-exists",
                            "This model has a unit called \"" + other.label() + "\" already. Use another label.");
                });
    }
}
