package yarrowmark.server.shelf.search;

import static yarrowmark.server.platform.Require.require;

import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.stereotype.Component;
import yarrowmark.server.shelf.model.DeviceClass;

/** Reads what the index is made of, one model after the other: a big shelf has nearly a million facts. */
@Component
class ShelfIndexSource {
    record ConfigurationWords(long id, String name, Map<String, String> facts) {}

    /** @param otherWords what else is noted: its screen, ports, notes, and the labels, serials and origins of its units */
    record ModelWords(
            long id,
            String maker,
            String name,
            DeviceClass deviceClass,
            boolean retired,
            @Nullable LocalDate released,
            @Nullable Double price,
            List<String> otherWords,
            List<ConfigurationWords> configurations) {}

    private final JdbcTemplate jdbc;

    ShelfIndexSource(JdbcTemplate jdbc) {
        this.jdbc = jdbc;
    }

    /**
     * Asks the same few questions however many models there are. What is added between two of them is left out: it was
     * touched, and is read next time.
     *
     * @param ids of the only models wanted; null for all
     */
    void models(@Nullable Collection<Long> ids, Consumer<ModelWords> take) {
        Map<Long, ModelWords> models = new LinkedHashMap<>();
        String only = ids == null
                ? ""
                : " where m.id in (" + ids.stream().map(String::valueOf).collect(Collectors.joining(",")) + ")";
        jdbc.query(
                "select m.id, k.name, m.name, m.device_class, m.retired_at, m.released, m.price, m.screen, m.ports, m.wireless, m.notes from model m join maker k on k.id = m.maker_id"
                        + only,
                (ResultSet r) -> {
                    List<String> words = new ArrayList<>();
                    for (int column = 8; column <= 11; column++) {
                        if (r.getString(column) != null) {
                            words.add(r.getString(column));
                        }
                    }
                    models.put(
                            r.getLong(1),
                            new ModelWords(
                                    r.getLong(1),
                                    r.getString(2),
                                    r.getString(3),
                                    DeviceClass.valueOf(r.getString(4)),
                                    r.getObject(5) != null,
                                    r.getObject(6, LocalDate.class),
                                    r.getBigDecimal(7) == null
                                            ? null
                                            : r.getBigDecimal(7).doubleValue(),
                                    words,
                                    new ArrayList<>()));
                });
        jdbc.query(
                "select m.id, u.label, u.serial, u.origin from unit u join model m on m.id = u.model_id" + only,
                (ResultSet r) -> {
                    for (int column = 2; column <= 4; column++) {
                        if (r.getString(column) != null && models.containsKey(r.getLong(1))) {
                            require(models, r.getLong(1)).otherWords().add(r.getString(column));
                        }
                    }
                });
        Map<Long, ConfigurationWords> configurations = new LinkedHashMap<>();
        String from = " from configuration c join unit u on u.id = c.unit_id join model m on m.id = u.model_id";
        String live = (only.isEmpty() ? " where" : only + " and") + " c.merged_into is null";
        jdbc.query("select m.id, c.id, c.name" + from + live, (ResultSet r) -> {
            ConfigurationWords c = new ConfigurationWords(r.getLong(2), r.getString(3), new LinkedHashMap<>());
            if (models.containsKey(r.getLong(1))) {
                configurations.put(c.id(), c);
                require(models, r.getLong(1)).configurations().add(c);
            }
        });
        jdbc.query(
                connection -> {
                    var statement = connection.prepareStatement(
                            ids == null
                                    ? "select f.configuration_id, f.fact_key, f.fact_value from fact f"
                                    : "select f.configuration_id, f.fact_key, f.fact_value" + from
                                            + " join fact f on f.configuration_id = c.id" + only,
                            ResultSet.TYPE_FORWARD_ONLY,
                            ResultSet.CONCUR_READ_ONLY);
                    statement.setFetchSize(5_000);
                    return statement;
                },
                (ResultSet r) -> fact(r, configurations));
        models.values().forEach(take);
    }

    private static void fact(ResultSet r, Map<Long, ConfigurationWords> configurations) throws SQLException {
        ConfigurationWords c = configurations.get(r.getLong(1));
        if (c != null) {
            // Few different keys and values make up a big shelf.
            c.facts().put(r.getString(2).intern(), r.getString(3).intern());
        }
    }
}
