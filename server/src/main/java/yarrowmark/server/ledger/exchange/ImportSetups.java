package yarrowmark.server.ledger.exchange;

import static yarrowmark.server.platform.Require.require;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import yarrowmark.core.setup.FactKey;
import yarrowmark.core.setup.FactReader;
import yarrowmark.core.setup.FactVocabulary;
import yarrowmark.server.ledger.exchange.ImportCells.Refused;
import yarrowmark.server.ledger.exchange.ImportRow.Setup;
import yarrowmark.server.shelf.Shelf;
import yarrowmark.server.shelf.configuration.Configurations;
import yarrowmark.server.shelf.model.DeviceClass;

/** The models, units and configurations that the rows of one file are about, matched with those of the shelf. */
final class ImportSetups {
    private static final List<String> COLUMNS = List.of("maker", "model", "class", "unit");

    private final Shelf shelf;
    private final Configurations configurations;
    private final boolean make;
    private final List<String> factColumns;
    private @Nullable List<String> lastCells;
    private int lastSetup;
    private final Map<String, DeviceClass> classes = new LinkedHashMap<>();
    private final Map<Setup, Integer> setups = new LinkedHashMap<>();
    private final List<Optional<Long>> found = new ArrayList<>();
    private final Map<String, Boolean> models = new LinkedHashMap<>();

    /** @param make whether models that the shelf does not have may be made */
    ImportSetups(Shelf shelf, Configurations configurations, List<String> columns, boolean make) {
        this.shelf = shelf;
        this.configurations = configurations;
        this.factColumns = columns.stream().filter(c -> c.startsWith("fact:")).toList();
        this.make = make;
    }

    /** Rows of one configuration mostly follow one another. */
    int setup(CsvFile.Row row) throws Refused {
        List<String> told = new ArrayList<>(factColumns.size() + COLUMNS.size());
        COLUMNS.forEach(c -> told.add(row.cell(c)));
        factColumns.forEach(c -> told.add(row.cell(c)));
        if (!told.equals(lastCells)) {
            lastSetup = newSetup(row);
            lastCells = told;
        }
        return lastSetup;
    }

    private int newSetup(CsvFile.Row row) throws Refused {
        String name = row.cell("maker") + " " + row.cell("model");
        if (!models.computeIfAbsent(
                name, n -> shelf.findModel(row.cell("maker"), row.cell("model")).isPresent())) {
            if (!make) {
                throw new Refused(
                        "model",
                        row.cell("model"),
                        name
                                + " is not on the shelf. Say that unknown models, suites and tests may be made, or correct the name.");
            }
            classes.put(
                    name,
                    Arrays.stream(DeviceClass.values())
                            .filter(c -> c.name().equalsIgnoreCase(row.cell("class")))
                            .findFirst()
                            .orElseThrow(() -> new Refused(
                                    "class",
                                    row.cell("class"),
                                    "A new model needs its class: desktop, mini, laptop, tablet, phone or board.")));
        }
        Map<String, String> facts = new TreeMap<>();
        for (String column : factColumns) {
            String value = row.cell(column);
            if (!value.isEmpty()) {
                facts.put(column.substring(5), fact(column, value));
            }
        }
        return setups.computeIfAbsent(
                new Setup(
                        row.cell("maker"),
                        row.cell("model"),
                        row.cell("unit").isEmpty() ? "Unit 1" : row.cell("unit"),
                        facts),
                s -> {
                    found.add(shelf.findModel(s.maker(), s.model())
                            .flatMap(m -> shelf.findUnit(m, s.unit()))
                            .flatMap(u -> configurations.find(u, s.facts())));
                    return found.size() - 1;
                });
    }

    /** A fact in its base unit, or as people write it: "8 GB". */
    private static String fact(String column, String value) throws Refused {
        FactKey key = FactVocabulary.entry(column.substring(5));
        Optional<String> unfit = FactReader.unfit(key, value);
        if (unfit.isEmpty()) {
            return value;
        }
        if (FactReader.read(key, value) instanceof FactReader.Understood u) {
            return u.value();
        }
        throw new Refused(column, value, unfit.get());
    }

    List<Setup> all() {
        return List.copyOf(setups.keySet());
    }

    /** The configuration of a setup, where the shelf has it. */
    Optional<Long> configuration(int setup) {
        return found.get(setup);
    }

    DeviceClass deviceClass(Setup s) {
        return require(classes, s.maker() + " " + s.model());
    }

    /** Models that the shelf does not have. */
    List<String> newModels() {
        return models.entrySet().stream()
                .filter(e -> !e.getValue())
                .map(Map.Entry::getKey)
                .toList();
    }

    int newConfigurations() {
        return (int) found.stream().filter(Optional::isEmpty).count();
    }
}
