package yarrowmark.server.writeup;

import static yarrowmark.server.platform.Require.require;

import jakarta.persistence.EntityManager;
import jakarta.persistence.TypedQuery;
import java.time.Instant;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;
import yarrowmark.server.files.Files;
import yarrowmark.server.platform.Page;
import yarrowmark.server.platform.Tokens;

/** What was published, for whoever reads it, and drafts by their secret link. */
@Service
public class PublishedEditions {
    /** What front pages can be narrowed to. */
    public enum Narrowed {
        KIND("w.kind = :what"),
        MODEL(":what member of w.models"),
        YEAR("year(e.publishedAt) = :what");

        private final String condition;

        Narrowed(String condition) {
            this.condition = condition;
        }
    }

    /**
     * @param photo hash of the one that leads it
     * @param about models it is about
     */
    public record Listed(
            long id,
            String key,
            String title,
            @Nullable String subtitle,
            @Nullable String description,
            int number,
            Instant publishedAt,
            String person,
            @Nullable String kind,
            @Nullable String photo,
            List<WriteUps.About> about) {}

    private static final String LISTED =
            " from Edition e join WriteUp w on w.id = e.writeUpId where w.listed = true and w.removedAt is null and e.number = (select max(n.number) from Edition n where n.writeUpId = w.id)";

    private final EntityManager entities;
    private final LabLook look;
    private final Files files;
    private final JsonMapper json;

    PublishedEditions(EntityManager entities, LabLook look, Files files, JsonMapper json) {
        this.entities = entities;
        this.look = look;
        this.files = files;
        this.json = json;
    }

    @Transactional(readOnly = true)
    public Optional<String> draft(String token) {
        return draftOf(token).map(w -> w.draftPage);
    }

    private Optional<WriteUp> draftOf(String token) {
        return entities
                .createQuery("select w from WriteUp w where w.draftHash = :hash and w.removedAt is null", WriteUp.class)
                .setParameter("hash", Tokens.hash(token))
                .getResultList()
                .stream()
                .findFirst();
    }

    /** A photo of a draft that is shown. */
    @Transactional(readOnly = true)
    public Optional<Files.Served> draftFile(String token, String hash) {
        return draftOf(token)
                .filter(w -> w.draftPage != null && w.draftPage.contains(hash))
                .map(w -> files.file(hash));
    }

    /** The page that a reader gets. @param number of an edition; null for the newest */
    @Transactional(readOnly = true)
    public Optional<String> published(String key, @Nullable Integer number) {
        List<Integer> numbers = entities.createQuery(
                        "select e.number from Edition e join WriteUp w on w.id = e.writeUpId where w.publicKey = :key and w.removedAt is null order by e.number desc",
                        Integer.class)
                .setParameter("key", key)
                .getResultList();
        if (numbers.isEmpty() || number != null && !numbers.contains(number)) {
            return Optional.empty();
        }
        int newest = numbers.get(0);
        int wanted = number == null ? newest : number;
        // The newest is read by most, and is kept as it is sent; what it was made from is far larger.
        String page = wanted == newest
                ? edition(key, wanted, "page")
                : EditionPage.of(frozen(key, wanted), "/w/" + key, "/w/" + key + "/files/%s");
        return Optional.of(addressed(page, key, wanted));
    }

    /** What an edition was made from, to take it along; empty where it is not published. */
    @Transactional(readOnly = true)
    public Optional<Frozen> whole(String key, int number) {
        return published(key, number).map(page -> frozen(key, number));
    }

    private Frozen frozen(String key, int number) {
        return json.readValue(edition(key, number, "content"), Frozen.class);
    }

    /** @param column the only one that is read */
    private String edition(String key, int number, String column) {
        return entities.createQuery(
                        "select e." + column
                                + " from Edition e join WriteUp w on w.id = e.writeUpId where w.publicKey = :key and e.number = :number",
                        String.class)
                .setParameter("key", key)
                .setParameter("number", number)
                .getSingleResult();
    }

    /** Where the device of an edition stood that day; empty where there is no such page. */
    @Transactional(readOnly = true)
    public Optional<String> standing(String key, int number) {
        return whole(key, number)
                .filter(f -> f.standing() != null)
                .map(f -> EditionPage.standing(f, "/w/" + key + "/" + number));
    }

    /** Addresses that a page does not know when it is made. */
    private static String addressed(String page, String key, int number) {
        return page.replace("%STANDING%", "/w/" + key + "/" + number + "/standing")
                .replaceAll("%EDITION(\\d+)%", "/w/" + key + "/$1")
                .replace("%DATA%", "/w/" + key + "/" + number + "/data.zip");
    }

    @Transactional(readOnly = true)
    public Optional<Files.Served> file(String key, String hash) {
        Long shown = entities.createQuery(
                        "select count(e) from Edition e join WriteUp w on w.id = e.writeUpId where w.publicKey = :key and w.removedAt is null and :hash member of e.files",
                        Long.class)
                .setParameter("key", key)
                .setParameter("hash", hash)
                .getSingleResult();
        return shown > 0 ? Optional.of(files.file(hash)) : Optional.empty();
    }

    /**
     * What the lab's public pages list, the newest first.
     *
     * @param by   null for all of them
     * @param what a kind, the number of a model, or a year
     */
    @Transactional(readOnly = true)
    public Page<Listed> listed(@Nullable Narrowed by, @Nullable Object what, int page, int size) {
        String from = LISTED + (by == null ? "" : " and " + by.condition);
        TypedQuery<Object[]> rows = entities.createQuery(
                "select e.id, w.id, w.publicKey, e.title, w.subtitle, e.description, e.number, e.publishedAt, e.person, w.kind, e.photo"
                        + from + " order by e.publishedAt desc, e.id desc",
                Object[].class);
        TypedQuery<Long> total = entities.createQuery("select count(e)" + from, Long.class);
        if (by != null) {
            rows.setParameter("what", what);
            total.setParameter("what", what);
        }
        List<Object[]> found =
                rows.setFirstResult(page * size).setMaxResults(size).getResultList();
        Map<Long, List<WriteUps.About>> about =
                about(found.stream().map(e -> (Long) e[1]).toList());
        return new Page<>(
                found.stream()
                        .map(e -> new Listed(
                                (Long) e[0],
                                (String) e[2],
                                (String) e[3],
                                (String) e[4],
                                (String) e[5],
                                (Integer) e[6],
                                (Instant) e[7],
                                (String) e[8],
                                (String) e[9],
                                (String) e[10],
                                about.getOrDefault((Long) e[1], List.of())))
                        .toList(),
                page,
                size,
                total.getSingleResult());
    }

    /** One that can be read, whether the front page lists it or not. @param number null for the newest */
    @Transactional(readOnly = true)
    public Optional<Listed> described(String key, @Nullable Integer number) {
        return entities
                .createQuery(
                        "select e.id, e.title, w.subtitle, e.description, e.number, e.publishedAt, e.person, w.kind, e.photo from Edition e join WriteUp w on w.id = e.writeUpId where w.publicKey = :key and w.removedAt is null and e.number = coalesce(:number, (select max(n.number) from Edition n where n.writeUpId = w.id))",
                        Object[].class)
                .setParameter("key", key)
                .setParameter("number", number)
                .getResultList()
                .stream()
                .findFirst()
                .map(e -> new Listed(
                        (Long) e[0],
                        key,
                        (String) e[1],
                        (String) e[2],
                        (String) e[3],
                        (Integer) e[4],
                        (Instant) e[5],
                        (String) e[6],
                        (String) e[7],
                        (String) e[8],
                        List.of()));
    }

    /** What there is to narrow to: each with how many it leads to, the most telling first. */
    @Transactional(readOnly = true)
    public List<Choice> choices(Narrowed by) {
        return switch (by) {
            case KIND ->
                entities
                        .createQuery(
                                "select w.kind, count(e)" + LISTED
                                        + " and w.kind is not null group by w.kind order by count(e) desc, w.kind",
                                Object[].class)
                        .getResultList()
                        .stream()
                        .map(c -> new Choice((String) c[0], (String) c[0], (Long) c[1]))
                        .toList();
            case MODEL -> {
                Map<Long, Long> counts = new HashMap<>();
                entities.createQuery(
                                "select x, count(e)" + LISTED.replace(" where ", " join w.models x where ")
                                        + " group by x",
                                Object[].class)
                        .getResultList()
                        .forEach(c -> counts.put((Long) c[0], (Long) c[1]));
                yield names(counts.keySet()).stream()
                        .map(m -> new Choice(String.valueOf(m.modelId()), m.name(), require(counts, m.modelId())))
                        .toList();
            }
            case YEAR ->
                entities
                        .createQuery(
                                "select year(e.publishedAt), count(e)" + LISTED
                                        + " group by year(e.publishedAt) order by year(e.publishedAt) desc",
                                Object[].class)
                        .getResultList()
                        .stream()
                        .map(c -> new Choice(String.valueOf(c[0]), String.valueOf(c[0]), (Long) c[1]))
                        .toList();
        };
    }

    /** Models by write-up, by their names. */
    private Map<Long, List<WriteUps.About>> about(List<Long> writeUps) {
        Map<Long, Set<Long>> models = new HashMap<>();
        if (!writeUps.isEmpty()) {
            entities.createQuery("select w.id, x from WriteUp w join w.models x where w.id in :ids", Object[].class)
                    .setParameter("ids", writeUps)
                    .getResultList()
                    .forEach(w -> models.computeIfAbsent((Long) w[0], id -> new HashSet<>())
                            .add((Long) w[1]));
        }
        List<WriteUps.About> names =
                names(models.values().stream().flatMap(Set::stream).collect(Collectors.toSet()));
        Map<Long, List<WriteUps.About>> about = new HashMap<>();
        models.forEach((id, of) -> about.put(
                id, names.stream().filter(m -> of.contains(m.modelId())).toList()));
        return about;
    }

    private List<WriteUps.About> names(Set<Long> models) {
        return models.isEmpty()
                ? List.of()
                : entities
                        .createQuery(
                                "select m.id, k.name, m.name from Model m join m.maker k where m.id in :ids order by k.name, m.name",
                                Object[].class)
                        .setParameter("ids", models)
                        .getResultList()
                        .stream()
                        .map(m -> new WriteUps.About((Long) m[0], m[1] + " " + m[2]))
                        .toList();
    }

    /** @param key for an address. @param count of write-ups */
    public record Choice(String key, String name, long count) {}

    public LabLook.LookNow look() {
        return look.now();
    }
}
