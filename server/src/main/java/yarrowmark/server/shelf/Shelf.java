package yarrowmark.server.shelf;

import java.math.BigDecimal;
import java.time.Clock;
import java.time.LocalDate;
import java.util.Collection;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.springframework.data.domain.PageRequest;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.core.setup.FactDifference;
import yarrowmark.core.setup.Fingerprint;
import yarrowmark.server.platform.ChangeLog;
import yarrowmark.server.platform.Page;
import yarrowmark.server.platform.Problem;

/** The shelf: models, their units, and the configurations of units. */
@Service
public class Shelf {
    private static final String MODEL = "model";
    private static final int LONGEST_NAME = 200;

    private final MakerRepository makers;
    private final ModelRepository models;
    private final UnitRepository units;
    private final ConfigurationRepository configurations;
    private final ChangeLog changes;
    private final Clock clock;

    Shelf(MakerRepository makers, ModelRepository models, UnitRepository units, ConfigurationRepository configurations,
          ChangeLog changes, Clock clock) {
        this.makers = makers;
        this.models = models;
        this.units = units;
        this.configurations = configurations;
        this.changes = changes;
        this.clock = clock;
    }

    /** What a person says about a model. */
    public record ModelFacts(String maker, String name, DeviceClass deviceClass, @Nullable BigDecimal price,
                             @Nullable String currency, @Nullable LocalDate released) { }

    /** One fact as it was found or typed. */
    public record GivenFact(String key, String value, boolean detected) { }

    @Transactional(readOnly = true)
    public Page<ModelRow> search(String words, Collection<DeviceClass> classes, int page, int size) {
        Collection<DeviceClass> wanted = classes.isEmpty() ? EnumSet.allOf(DeviceClass.class) : classes;
        var found = models.search(likeable(words), wanted, PageRequest.of(page, size));
        Map<Long, Integer> counts = new HashMap<>();
        for (Object[] row : configurations.countByModel(found.map(Model::id).getContent())) {
            counts.put((Long) row[0], ((Number) row[1]).intValue());
        }
        return Page.of(found, m -> ModelRow.of(m, counts.getOrDefault(m.id(), 0)));
    }

    @Transactional(readOnly = true)
    public List<String> makerNames() {
        return makers.findAllByOrderByName().stream().map(Maker::name).toList();
    }

    @Transactional(readOnly = true)
    public ModelPage model(long id) {
        Model model = models.findWithMakerById(id).orElseThrow(() -> Problem.notFound(MODEL, id));
        List<Configuration> found = configurations.findByUnitModelIdOrderById(id);
        return ModelPage.of(model, units.findByModelIdOrderById(id), found);
    }

    @Transactional
    public long make(ModelFacts facts, String person) {
        Maker maker = maker(facts.maker());
        String name = facts.name().strip();
        refuseTwins(maker, name);
        Model model = new Model(maker, name, facts.deviceClass());
        model.sell(facts.price(), facts.currency(), checked(facts.released()));
        models.saveAndFlush(model);
        changes.note(person, MODEL, model.id(), "made", null, maker.name() + " " + name);
        return model.id();
    }

    /** @param version the version the person saw; another one means that somebody else changed it since */
    @Transactional
    public void change(long id, int version, ModelFacts facts, String person) {
        Model model = models.findWithMakerById(id).orElseThrow(() -> Problem.notFound(MODEL, id));
        if (model.version() != version) {
            throw Problem.conflict("changed-meanwhile", "Somebody else changed this model since you opened it. It is now "
                + model.maker().name() + " " + model.name() + ". Your words are still in the form: look at the new state, then save again.");
        }
        Maker maker = maker(facts.maker());
        String name = facts.name().strip();
        if (!(maker.id().equals(model.maker().id()) && name.equalsIgnoreCase(model.name()))) {
            refuseTwins(maker, name);
        }
        changes.note(person, MODEL, id, "maker", model.maker().name(), maker.name());
        changes.note(person, MODEL, id, "name", model.name(), name);
        changes.note(person, MODEL, id, "class", model.deviceClass(), facts.deviceClass());
        changes.note(person, MODEL, id, "price", plain(model.price()), plain(facts.price()));
        changes.note(person, MODEL, id, "currency", model.currency(), facts.currency());
        changes.note(person, MODEL, id, "released", model.released(), facts.released());
        model.describe(maker, name, facts.deviceClass());
        model.sell(facts.price(), facts.currency(), checked(facts.released()));
        models.saveAndFlush(model);
    }

    @Transactional
    public long addUnit(long modelId, String label, String person) {
        Model model = models.findById(modelId).orElseThrow(() -> Problem.notFound(MODEL, modelId));
        String text = label.strip();
        if (units.existsByModelIdAndLabel(modelId, text)) {
            throw Problem.conflict("unit-exists", "This model has a unit called \"" + text + "\" already. Use another label.");
        }
        Unit unit = units.saveAndFlush(new Unit(model, text));
        changes.note(person, "unit", unit.id(), "made", null, text);
        return unit.id();
    }

    /** The model's first unit, or a new one where it has none. */
    @Transactional
    public long firstUnit(long modelId, String person) {
        return units.findByModelIdOrderById(modelId).stream().findFirst().map(Unit::id)
            .orElseGet(() -> addUnit(modelId, "Unit 1", person));
    }

    /** @throws Problem when the unit is not one of this model's */
    @Transactional(readOnly = true)
    public void checkUnit(long unitId, long modelId) {
        Unit unit = units.findById(unitId).orElseThrow(() -> Problem.notFound("unit", unitId));
        if (!unit.model().id().equals(modelId)) {
            throw Problem.invalid("unit-of-another-model", "Unit " + unitId + " belongs to another model.");
        }
    }

    /**
     * The unit's configuration with exactly these facts: the one that is there, or a new child of the newest. A new
     * one is named by what changed; the first one by what it is.
     */
    @Transactional
    public long configure(long unitId, List<GivenFact> facts, @Nullable String name, String person) {
        Unit unit = units.findById(unitId).orElseThrow(() -> Problem.notFound("unit", unitId));
        Map<String, String> values = new TreeMap<>();
        facts.forEach(f -> values.put(f.key(), f.value().strip()));
        String fingerprint = Fingerprint.of(values);
        var same = configurations.findByUnitIdAndFingerprint(unitId, fingerprint);
        if (same.isPresent()) {
            return same.get().id();
        }
        Configuration parent = configurations.findFirstByUnitIdOrderByIdDesc(unitId).orElse(null);
        String called = name != null ? name : ConfigurationNames.suggest(parent == null ? null : parent.values(), values);
        Configuration made = new Configuration(unit, parent, shortened(called), fingerprint, clock.instant());
        Map<String, GivenFact> last = new TreeMap<>();
        facts.forEach(f -> last.put(f.key(), f));
        last.values().forEach(f -> made.add(f.key(), f.value().strip(), f.detected() ? Fact.Source.DETECTED : Fact.Source.TYPED));
        configurations.saveAndFlush(made);
        changes.note(person, "configuration", made.id(), "made", null, made.name());
        return made.id();
    }

    @Transactional(readOnly = true)
    public ConfigurationPage configuration(long id) {
        Configuration c = configurations.findWithFactsById(id).orElseThrow(() -> Problem.notFound("configuration", id));
        List<FactDifference> changed = c.parent() == null ? List.of() : FactDifference.between(c.parent().values(), c.values());
        return ConfigurationPage.of(c, changed);
    }

    /** Names of these configurations, for the table and for lists; unknown ids are left out. */
    @Transactional(readOnly = true)
    public List<ConfigurationRow> configurations(Collection<Long> ids) {
        return configurations.findWithModelByIdIn(ids).stream().map(ConfigurationRow::of).toList();
    }

    @Transactional(readOnly = true)
    public List<ConfigurationRow> searchConfigurations(String words, int most) {
        return configurations.search(likeable(words), PageRequest.of(0, most)).stream().map(ConfigurationRow::of).toList();
    }

    private Maker maker(String name) {
        return makers.findByName(name.strip()).orElseGet(() -> makers.saveAndFlush(new Maker(name.strip())));
    }

    private void refuseTwins(Maker maker, String name) {
        if (models.existsByMakerAndName(maker, name)) {
            throw Problem.conflict("model-exists", maker.name() + " " + name + " is on the shelf already.");
        }
    }

    private LocalDate checked(@Nullable LocalDate released) {
        int latest = LocalDate.now(clock).getYear() + 5;
        if (released != null && (released.getYear() < 1970 || released.getYear() > latest)) {
            throw Problem.invalid("released-out-of-range",
                "A release date must lie between 1970 and " + latest + ", not in " + released.getYear() + ".");
        }
        return released;
    }

    private static String plain(@Nullable BigDecimal price) {
        return price == null ? null : price.stripTrailingZeros().toPlainString();
    }

    /** Search words are text, not a pattern. */
    private static String likeable(String words) {
        return words.strip().replace("!", "!!").replace("%", "!%").replace("_", "!_");
    }

    private static String shortened(String name) {
        return name.length() <= LONGEST_NAME ? name : name.substring(0, LONGEST_NAME - 1) + "…";
    }
}
