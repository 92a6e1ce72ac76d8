package yarrowmark.server.writeup;

import static yarrowmark.server.platform.Require.require;

import jakarta.persistence.EntityManager;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import yarrowmark.server.files.Files;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.Tokens;
import yarrowmark.server.platform.history.ChangeLog;

/** Publishing: what was written, with its numbers as they are now, under an address that stays. */
@Service
public class Editions {
    private static final int LONGEST = 8_000_000;

    /** Among what pieces show: no piece has this number. */
    public static final long STANDING = 0;

    private final EntityManager entities;
    private final WriteUps writeUps;
    private final LabLook look;
    private final ReadingsBehind readings;
    private final TestSummaries summaries;
    private final Files files;
    private final JsonMapper json;
    private final ChangeLog changes;
    private final Clock clock;

    Editions(
            EntityManager entities,
            WriteUps writeUps,
            LabLook look,
            ReadingsBehind readings,
            TestSummaries summaries,
            Files files,
            JsonMapper json,
            ChangeLog changes,
            Clock clock) {
        this.entities = entities;
        this.writeUps = writeUps;
        this.look = look;
        this.readings = readings;
        this.summaries = summaries;
        this.files = files;
        this.json = json;
        this.changes = changes;
        this.clock = clock;
    }

    /**
     * @param seen   revision that its writer looked at: what is published is what they saw
     * @param shown  what each piece shows now, by its number
     * @param standing where the device stands that it is about
     * @param change what is other than before; needed from the second edition on
     * @param kind   what the front page lists it under; null for none
     */
    @Transactional
    public int publish(
            long id,
            int seen,
            Map<Long, Frozen.Shown> shown,
            Frozen.@Nullable Shown standing,
            @Nullable String change,
            boolean listed,
            @Nullable String kind,
            String person) {
        WriteUp w = atRevision(id, seen);
        List<Frozen.Earlier> earlier = earlier(id);
        if (!earlier.isEmpty() && (change == null || change.isBlank())) {
            throw Problem.invalid(
                    "say-what-changed", "Say what is other than in the edition before: its readers will see it.");
        }
        int number = earlier.isEmpty() ? 1 : earlier.get(0).number() + 1;
        String what = earlier.isEmpty() || change == null ? null : change.strip();
        Frozen frozen = frozen(w, shown, standing, number, what, earlier, person);
        Edition edition = new Edition();
        edition.writeUpId = id;
        edition.number = number;
        edition.title = w.title;
        edition.changes = what;
        edition.page = EditionPage.of(frozen, null, "/w/" + w.publicKey + "/files/%s");
        edition.content = json.writeValueAsString(frozen);
        if (edition.content.length() > LONGEST) {
            throw Problem.invalid(
                    "too-large-to-publish", "This is too large to be read: more than 8 MB without photos.");
        }
        edition.description = EditionDescription.of(frozen);
        edition.photo = frozen.photo();
        edition.person = person;
        edition.publishedAt = frozen.at();
        edition.files = photos(frozen);
        entities.persist(edition);
        w.listed = listed;
        w.kind = kind == null ? null : kind.strip();
        changes.note(person, WriteUps.SUBJECT, id, "published", null, "edition " + number);
        return number;
    }

    /**
     * The same with what each piece shows as JSON, as {@link Frozen.Shown} has it: for what is brought along ready.
     *
     * @param shown {@link #STANDING} for where the device stands
     */
    @Transactional
    public int publish(long id, Map<Long, JsonNode> shown, @Nullable String change, String person) {
        Map<Long, Frozen.Shown> read = new HashMap<>();
        shown.forEach((piece, node) -> read.put(piece, json.treeToValue(node, Frozen.Shown.class)));
        WriteUp w = writeUps.held(id);
        return publish(id, w.revision, read, read.remove(STANDING), change, true, w.kind, person);
    }

    private WriteUp atRevision(long id, int seen) {
        WriteUp w = writeUps.held(id);
        if (w.revision != seen) {
            throw Problem.conflict(
                    "write-up-changed",
                    "Somebody changed this write-up while you looked at it. Look at it again before it goes out.");
        }
        return w;
    }

    private Frozen frozen(
            WriteUp w,
            Map<Long, Frozen.Shown> shown,
            Frozen.@Nullable Shown standing,
            int number,
            @Nullable String change,
            List<Frozen.Earlier> earlier,
            String person) {
        List<Frozen.FrozenPiece> pieces = new ArrayList<>();
        List<Piece> all = writeUps.pieces(w.id);
        Map<Long, JsonNode> bodies = writeUps.forReaders(all);
        for (Piece piece : all) {
            Frozen.Shown of = shown.get(piece.id);
            boolean draws = piece.kind == PieceKind.FIGURE;
            if (number > 0 && draws && (of == null || of.svg() == null)) {
                throw Problem.invalid(
                        "figure-without-drawing",
                        "A figure shows nothing: its question has no answer now. Change what it asks, or take it out.");
            }
            pieces.add(new Frozen.FrozenPiece(piece.id, piece.kind, require(bodies, piece.id), cleaned(of)));
        }
        if (pieces.isEmpty()) {
            throw Problem.invalid("nothing-to-publish", "There is nothing in this write-up yet.");
        }
        LabLook.LookNow now = look.now();
        return new Frozen(
                w.title,
                w.subtitle,
                now.name(),
                now.accent(),
                now.mark(),
                now.licence(),
                pieces,
                number,
                change,
                earlier,
                person,
                clock.instant(),
                cleaned(standing),
                number == 0
                        ? null
                        : readings.of(
                                pieces.stream().map(Frozen.FrozenPiece::body).toList()),
                summaries.of(shown.values()));
    }

    private static Frozen.@Nullable Shown cleaned(Frozen.@Nullable Shown shown) {
        return shown == null || shown.svg() == null
                ? shown
                : new Frozen.Shown(
                        SafeSvg.cleaned(shown.svg()),
                        shown.narrow() == null ? null : SafeSvg.cleaned(shown.narrow()),
                        shown.caption(),
                        shown.alt(),
                        shown.columns(),
                        shown.rows(),
                        shown.numbers(),
                        shown.lines(),
                        shown.metrics());
    }

    /**
     * Pages that came from elsewhere are made anew from what they show, which is cleaned like what is drawn here.
     *
     * @throws Problem where one cannot be read
     */
    @Transactional
    public void makeAnew() {
        for (Long id : entities.createQuery("select e.id from Edition e order by e.id", Long.class)
                .getResultList()) {
            Edition edition = entities.find(Edition.class, id);
            String where = "edition " + edition.number + " of “" + edition.title + "”";
            Frozen clean;
            String page;
            try {
                clean = cleaned(json.readValue(edition.content, Frozen.class));
                page = EditionPage.of(
                        clean, null, "/w/" + entities.find(WriteUp.class, edition.writeUpId).publicKey + "/files/%s");
            } catch (RuntimeException e) {
                throw Problem.invalid("edition-unreadable", where + " cannot be read");
            }
            entities.createNativeQuery(
                            "update edition set page = :page, content = :content, description = :description, photo = :photo where id = :id")
                    .setParameter("page", page)
                    .setParameter("description", EditionDescription.of(clean))
                    .setParameter("photo", clean.photo())
                    .setParameter("content", json.writeValueAsString(clean))
                    .setParameter("id", id)
                    .executeUpdate();
            entities.detach(edition);
        }
        // Drafts are shown by an address that their writer gives away; they are made when that is done again.
        entities.createNativeQuery("update write_up set draft_page = null, draft_hash = null, draft_at = null")
                .executeUpdate();
    }

    private static Frozen cleaned(Frozen f) {
        return new Frozen(
                f.title(),
                f.subtitle(),
                f.lab(),
                f.accent() == null ? null : LabLook.colour(f.accent()),
                f.mark() == null ? null : LabLook.cleaned(f.mark()),
                f.licence(),
                f.pieces().stream()
                        .map(p -> new Frozen.FrozenPiece(p.id(), p.kind(), p.body(), cleaned(p.shown())))
                        .toList(),
                f.number(),
                f.changes(),
                f.earlier(),
                f.person(),
                f.at(),
                cleaned(f.standing()),
                f.readings(),
                f.tests());
    }

    private Set<String> photos(Frozen frozen) {
        Set<String> hashes = new HashSet<>();
        for (Frozen.FrozenPiece piece : frozen.pieces()) {
            if (piece.kind() == PieceKind.PHOTO) {
                String hash = piece.body().path("hash").asString("");
                files.file(hash);
                hashes.add(hash);
            }
        }
        return hashes;
    }

    private List<Frozen.Earlier> earlier(long id) {
        return entities
                .createQuery(
                        "select e.number, e.publishedAt, e.changes from Edition e where e.writeUpId = :id order by e.number desc",
                        Object[].class)
                .setParameter("id", id)
                .getResultList()
                .stream()
                .map(e -> new Frozen.Earlier((Integer) e[0], (Instant) e[1], (String) e[2]))
                .toList();
    }

    /** What an edition was made from, for its writer to hold against what is measured now. */
    @Transactional(readOnly = true)
    public Map<Long, Frozen.Shown> shown(long id, int number) {
        writeUps.here(id);
        String content = entities
                .createQuery(
                        "select e.content from Edition e where e.writeUpId = :id and e.number = :number", String.class)
                .setParameter("id", id)
                .setParameter("number", number)
                .getResultList()
                .stream()
                .findFirst()
                .orElseThrow(() -> Problem.notFound("edition", number));
        Map<Long, Frozen.Shown> shown = new HashMap<>();
        for (Frozen.FrozenPiece piece : json.readValue(content, Frozen.class).pieces()) {
            if (piece.shown() != null) {
                shown.put(piece.id(), piece.shown());
            }
        }
        return shown;
    }

    /** @return the token of the secret link, shown this once; a link from before leads nowhere any more */
    @Transactional
    public String showDraft(long id, int seen, Map<Long, Frozen.Shown> shown, String person) {
        WriteUp w = atRevision(id, seen);
        Frozen frozen = frozen(w, shown, null, 0, null, List.of(), person);
        String token = Tokens.fresh();
        w.draftHash = Tokens.hash(token);
        w.draftPage = EditionPage.of(frozen, null, "/w/draft/" + token + "/files/%s");
        photos(frozen);
        w.draftAt = frozen.at();
        changes.note(person, WriteUps.SUBJECT, id, "draft", null, "shown by a secret link");
        return token;
    }

    @Transactional
    public void hideDraft(long id, String person) {
        WriteUp w = writeUps.held(id);
        w.draftHash = null;
        w.draftPage = null;
        w.draftAt = null;
        changes.note(person, WriteUps.SUBJECT, id, "draft", "shown by a secret link", null);
    }
}
