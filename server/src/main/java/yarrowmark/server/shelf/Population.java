package yarrowmark.server.shelf;

import static yarrowmark.server.platform.Require.require;

import jakarta.persistence.EntityManager;
import java.math.BigDecimal;
import java.time.Instant;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.server.platform.change.Cached;
import yarrowmark.server.platform.change.Mirror;
import yarrowmark.server.platform.change.RecordsChanged;
import yarrowmark.server.shelf.configuration.ConfigurationRow;
import yarrowmark.server.shelf.model.DeviceClass;
import yarrowmark.server.shelf.model.ModelTouched;
import yarrowmark.server.shelf.model.ReviewState;

/**
 * Every configuration of the shelf with what standings ask of it, in one question: entities of thousands would take seconds.
 * Kept until something of a model changes; a new reading changes nothing here.
 */
@Service
public class Population implements Mirror {
    /**
     * @param price         in currency, an ISO 4217 code
     * @param weight        in g
     * @param predecessorId of its model
     * @param first         whether it was made from no other
     */
    public record Member(
            ConfigurationRow configuration,
            Instant madeAt,
            boolean first,
            @Nullable BigDecimal price,
            @Nullable String currency,
            @Nullable LocalDate released,
            @Nullable Double weight,
            @Nullable ReviewState review,
            @Nullable Long predecessorId) {}

    private static final String ALL =
            """
        select c.id, m.id, k.name, m.name, m.deviceClass, u.label, c.name, c.retiredAt, c.createdAt, p.id, m.price, m.currency, m.released, m.weight, m.review, m.predecessorId
        from Configuration c join c.unit u join u.model m join m.maker k left join c.parent p where c.mergedInto is null order by c.id""";

    private final EntityManager entities;
    private final Cached<List<Member>> members = new Cached<>();
    /** By key, as each is asked for. */
    private final Cached<Map<String, Map<Long, String>>> facts = new Cached<>();

    Population(EntityManager entities) {
        this.entities = entities;
    }

    /** By configuration, in the order they were made. */
    @Transactional(readOnly = true)
    public List<Member> all() {
        return members.get(this::members);
    }

    private List<Member> members() {
        List<Member> all = new ArrayList<>();
        for (Object[] r : entities.createQuery(ALL, Object[].class).getResultList()) {
            all.add(new Member(
                    new ConfigurationRow(
                            (Long) r[0],
                            (Long) r[1],
                            (String) r[2],
                            (String) r[3],
                            (DeviceClass) r[4],
                            (String) r[5],
                            (String) r[6],
                            r[7] != null),
                    (Instant) r[8],
                    r[9] == null,
                    (BigDecimal) r[10],
                    (String) r[11],
                    (LocalDate) r[12],
                    r[13] == null ? null : ((BigDecimal) r[13]).doubleValue(),
                    (ReviewState) r[14],
                    (Long) r[15]));
        }
        return List.copyOf(all);
    }

    /** Values of these facts, by key and configuration. */
    @Transactional(readOnly = true)
    public Map<String, Map<Long, String>> facts(Collection<String> keys) {
        Map<String, Map<Long, String>> now = facts.get(ConcurrentHashMap::new);
        List<String> missing =
                keys.stream().filter(key -> !now.containsKey(key)).toList();
        if (!missing.isEmpty()) {
            Map<String, Map<Long, String>> read = new HashMap<>();
            missing.forEach(key -> read.put(key, new HashMap<>()));
            entities.createQuery(
                            "select f.factKey, f.configuration.id, f.factValue from Fact f where f.factKey in :keys",
                            Object[].class)
                    .setParameter("keys", missing)
                    .getResultList()
                    .forEach(r -> require(read, (String) r[0]).put((Long) r[1], (String) r[2]));
            now.putAll(read);
        }
        Map<String, Map<Long, String>> asked = new HashMap<>();
        keys.forEach(key -> asked.put(key, now.get(key)));
        return asked;
    }

    /** What is begun before a change is kept with what was there before it, and goes with it. */
    @Override
    public void note(RecordsChanged change) {
        if (change instanceof ModelTouched) {
            members.forget();
            facts.forget();
        }
    }

    /** Keys of facts that are known of any configuration, and of how many. */
    @Transactional(readOnly = true)
    public Map<String, Long> keys() {
        Map<String, Long> keys = new HashMap<>();
        entities.createQuery("select f.factKey, count(f) from Fact f group by f.factKey", Object[].class)
                .getResultList()
                .forEach(r -> keys.put((String) r[0], (Long) r[1]));
        return keys;
    }
}
