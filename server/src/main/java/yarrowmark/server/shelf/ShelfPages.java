package yarrowmark.server.shelf;

import static yarrowmark.server.platform.Require.require;

import java.time.Clock;
import java.time.LocalDate;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.server.platform.Page;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.records.Chain;
import yarrowmark.server.shelf.configuration.Configuration;
import yarrowmark.server.shelf.configuration.ConfigurationPage;
import yarrowmark.server.shelf.configuration.ConfigurationRepository;
import yarrowmark.server.shelf.configuration.ConfigurationRow;
import yarrowmark.server.shelf.configuration.Configurations;
import yarrowmark.server.shelf.configuration.CorrectionRepository;
import yarrowmark.server.shelf.model.Maker;
import yarrowmark.server.shelf.model.MakerRepository;
import yarrowmark.server.shelf.model.Model;
import yarrowmark.server.shelf.model.ModelFields;
import yarrowmark.server.shelf.model.ModelRepository;
import yarrowmark.server.shelf.model.ModelRow;
import yarrowmark.server.shelf.model.UnitFields;
import yarrowmark.server.shelf.model.UnitRepository;
import yarrowmark.server.shelf.search.ShelfIndex;

/** Reads the shelf: lists, pages of models and of configurations, and what must go back soon. */
@Service
public class ShelfPages {
    private final ModelRepository models;
    private final MakerRepository makers;
    private final UnitRepository units;
    private final CorrectionRepository corrections;
    private final Configurations setups;
    private final ModelFields modelFields;
    private final UnitFields unitFields;
    private final ShelfIndex index;
    private final Clock clock;
    private final ConfigurationRepository configurations;

    ShelfPages(
            ModelRepository models,
            MakerRepository makers,
            UnitRepository units,
            CorrectionRepository corrections,
            Configurations setups,
            ModelFields modelFields,
            UnitFields unitFields,
            ShelfIndex index,
            Clock clock,
            ConfigurationRepository configurations) {
        this.configurations = configurations;
        this.models = models;
        this.makers = makers;
        this.units = units;
        this.corrections = corrections;
        this.setups = setups;
        this.modelFields = modelFields;
        this.unitFields = unitFields;
        this.index = index;
        this.clock = clock;
    }

    /** Configurations that are not there any more because they were merged, each with the one where its sessions are now. */
    @Transactional(readOnly = true)
    public Map<Long, Long> mergedAway() {
        Map<Long, Long> next = new HashMap<>();
        configurations.mergedAway().forEach(row -> next.put((Long) row[0], (Long) row[1]));
        return Chain.ends(next);
    }

    /** A unit that must go back soon. @param daysLeft below 0 where it is late */
    public record DueUnit(
            long unitId, long modelId, String maker, String model, String label, LocalDate dueBack, long daysLeft) {}

    @Transactional(readOnly = true)
    public Page<ModelRow> search(ShelfIndex.Question question, int page, int size) {
        return search(question, ShelfIndex.InOrder.SHELF, page, size);
    }

    @Transactional(readOnly = true)
    public Page<ModelRow> search(ShelfIndex.Question question, ShelfIndex.InOrder order, int page, int size) {
        ShelfIndex.Found found = index.models(question, order, page, size);
        Map<Long, Model> byId = models.findWithMakerByIdIn(found.ids()).stream()
                .collect(Collectors.toMap(Model::id, Function.identity()));
        Map<Long, Integer> counts = new HashMap<>();
        for (Object[] row : configurations.countByModel(found.ids())) {
            counts.put((Long) row[0], ((Number) row[1]).intValue());
        }
        return new Page<>(
                found.ids().stream()
                        .filter(byId::containsKey)
                        .map(id -> ModelRow.of(require(byId, id), counts.getOrDefault(id, 0)))
                        .toList(),
                page,
                size,
                found.total());
    }

    @Transactional(readOnly = true)
    public List<ConfigurationRow> searchConfigurations(String words, int most) {
        List<Long> ids = index.configurations(words, most);
        Map<Long, ConfigurationRow> rows =
                configurations(ids).stream().collect(Collectors.toMap(ConfigurationRow::id, Function.identity()));
        return ids.stream().filter(rows::containsKey).map(rows::get).toList();
    }

    @Transactional(readOnly = true)
    public List<String> makerNames() {
        return makers.findAllByOrderByName().stream().map(Maker::name).toList();
    }

    /** Every model, without what is counted of it. */
    @Transactional(readOnly = true)
    public List<ModelRow> allModels() {
        return models.findAllWithMakerByOrderById().stream()
                .map(m -> ModelRow.of(m, 0))
                .toList();
    }

    @Transactional(readOnly = true)
    public ModelPage model(long id) {
        Model model = models.findWithMakerById(id).orElseThrow(() -> Problem.notFound(Shelf.MODEL, id));
        List<Configuration> found = configurations.findByUnitModelIdOrderById(id);
        return ModelPage.of(
                model,
                modelFields.all(),
                units.findByModelIdOrderById(id),
                unitFields.all(),
                found,
                setups.sessions(found.stream().map(Configuration::id).toList()));
    }

    @Transactional(readOnly = true)
    public long modelOfUnit(long unitId) {
        return units.findById(unitId)
                .orElseThrow(() -> Problem.notFound(Shelf.UNIT, unitId))
                .model()
                .id();
    }

    @Transactional(readOnly = true)
    public List<DueUnit> due(int days) {
        LocalDate today = LocalDate.now(clock);
        return units.dueUntil(today.plusDays(days)).stream()
                .map(u -> new DueUnit(
                        u.id(),
                        u.model().id(),
                        u.model().maker().name(),
                        u.model().name(),
                        u.label(),
                        require(u.dueBack()),
                        java.time.temporal.ChronoUnit.DAYS.between(today, u.dueBack())))
                .toList();
    }

    @Transactional(readOnly = true)
    public ConfigurationPage configuration(long id) {
        Configuration c =
                configurations.findWithFactsById(id).orElseThrow(() -> Problem.notFound(Configurations.SUBJECT, id));
        return ConfigurationPage.of(
                c,
                setups.sessions(id),
                configurations.sameFacts(c.fingerprint(), c.unit().model().id(), id),
                corrections.findByConfigurationIdOrderById(id));
    }

    /** Names of these configurations, for the table and for lists; unknown ids are left out. */
    @Transactional(readOnly = true)
    public List<ConfigurationRow> configurations(Collection<Long> ids) {
        return configurations.findWithModelByIdIn(ids).stream()
                .map(ConfigurationRow::of)
                .toList();
    }

    @Transactional(readOnly = true)
    public List<ConfigurationRow> twins() {
        return configurations.twins().stream().map(ConfigurationRow::of).toList();
    }
}
