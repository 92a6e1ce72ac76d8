package yarrowmark.server.writeup;

import jakarta.persistence.EntityManager;
import java.time.Clock;
import java.time.Instant;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.hibernate.Hibernate;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.Tokens;
import yarrowmark.server.platform.history.ChangeLog;
import yarrowmark.server.platform.records.Locks;
import yarrowmark.server.shelf.ShelfPages;

/**
 * Writing: pieces are kept one by one, each under the revision that its writer saw, so that two people in one write-up clash
 * only in the same piece, and then see both.
 */
@Service
public class WriteUps {
    static final String SUBJECT = "write-up";
    private static final int MOST_PIECES = 200;
    private static final int KEY_LENGTH = 24;

    public record About(long modelId, String name) {}

    /** @param editions how many were published; 0 for what never was */
    public record WriteUpRow(
            long id,
            String title,
            @Nullable String subtitle,
            List<About> about,
            String madeBy,
            Instant changedAt,
            boolean listed,
            long editions,
            @Nullable Instant publishedAt,
            String publicKey,
            @Nullable String kind) {}

    public record PieceRow(long id, PieceKind kind, JsonNode body, int revision, String changedBy, Instant changedAt) {}

    public record EditionRow(int number, String title, @Nullable String changes, String person, Instant publishedAt) {}

    /** @param draftAt when its secret link was made; null where there is none */
    public record WriteUpPage(
            WriteUpRow writeUp,
            int revision,
            List<PieceRow> pieces,
            List<EditionRow> editions,
            @Nullable Instant draftAt) {}

    public record NewPiece(PieceKind kind, JsonNode body) {}

    private final WriteUpRows lists;
    private final EntityManager entities;
    private final Locks locks;
    private final ShelfPages shelf;
    private final JsonMapper json;
    private final ChangeLog changes;
    private final Clock clock;

    WriteUps(
            WriteUpRows lists,
            EntityManager entities,
            Locks locks,
            ShelfPages shelf,
            JsonMapper json,
            ChangeLog changes,
            Clock clock) {
        this.lists = lists;
        this.entities = entities;
        this.locks = locks;
        this.shelf = shelf;
        this.json = json;
        this.changes = changes;
        this.clock = clock;
    }

    @Transactional
    public WriteUpPage make(
            String title, Set<Long> models, List<NewPiece> pieces, @Nullable String kind, String person) {
        if (pieces.size() > MOST_PIECES) {
            throw tooMany();
        }
        Instant now = clock.instant();
        WriteUp made = new WriteUp(title.strip(), Tokens.fresh().substring(0, KEY_LENGTH), person, now);
        made.kind = kind == null || kind.isBlank() ? null : kind.strip();
        made.models.addAll(known(models));
        entities.persist(made);
        double place = 0;
        for (NewPiece piece : pieces) {
            PieceShape.check(piece.kind(), piece.body());
            entities.persist(
                    new Piece(made.id, ++place, piece.kind(), piece.body().toString(), person, now));
        }
        changes.note(person, SUBJECT, made.id, ChangeLog.MADE, null, made.title);
        entities.flush();
        return whole(made.id);
    }

    private Set<Long> known(Set<Long> models) {
        Set<Long> known = new HashSet<>(models);
        if (!known.isEmpty()) {
            List<Long> there = entities.createQuery("select m.id from Model m where m.id in :ids", Long.class)
                    .setParameter("ids", known)
                    .getResultList();
            known.removeAll(there);
            known.stream().findFirst().ifPresent(id -> {
                throw Problem.notFound("model", id);
            });
        }
        return models;
    }

    private static Problem tooMany() {
        return Problem.invalid("too-many-pieces", "A write-up has " + MOST_PIECES + " pieces at the most.");
    }

    @Transactional(readOnly = true)
    public WriteUpPage whole(long id) {
        WriteUp w = here(id);
        return new WriteUpPage(
                lists.rows(List.of(w)).get(0),
                w.revision,
                rowsOf(pieces(id)),
                entities
                        .createQuery(
                                "select e.number, e.title, e.changes, e.person, e.publishedAt from Edition e where e.writeUpId = :id order by e.number desc",
                                Object[].class)
                        .setParameter("id", id)
                        .getResultList()
                        .stream()
                        .map(e -> new EditionRow(
                                (Integer) e[0], (String) e[1], (String) e[2], (String) e[3], (Instant) e[4]))
                        .toList(),
                w.draftAt);
    }

    WriteUp here(long id) {
        WriteUp found = (WriteUp) Hibernate.unproxy(entities.find(WriteUp.class, id));
        if (found == null || found.removedAt != null) {
            throw Problem.notFound("write-up", id);
        }
        return found;
    }

    /** Whoever changes it waits for whoever does: its order and its revision are of all of it. */
    WriteUp held(long id) {
        return locks.lock(WriteUp.class, id)
                .map(w -> (WriteUp) Hibernate.unproxy(w))
                .filter(w -> w.removedAt == null)
                .orElseThrow(() -> Problem.notFound("write-up", id));
    }

    List<Piece> pieces(long id) {
        return entities.createQuery(
                        "select p from Piece p where p.writeUpId = :id and p.removedAt is null order by p.place, p.id",
                        Piece.class)
                .setParameter("id", id)
                .getResultList();
    }

    private PieceRow row(Piece p) {
        return rowsOf(List.of(p)).get(0);
    }

    private List<PieceRow> rowsOf(List<Piece> all) {
        Map<Long, Long> merged = shelf.mergedAway();
        return all.stream()
                .map(p -> new PieceRow(p.id, p.kind, body(p, merged), p.revision, p.changedBy, p.changedAt))
                .toList();
    }

    /** Configurations that were merged into others since are followed: their sessions are there now. */
    private JsonNode body(Piece piece, Map<Long, Long> merged) {
        JsonNode body = json.readTree(piece.body);
        Named.follow(body, merged);
        return body;
    }

    /** What is in each piece for readers: without what only its writer sees. By the numbers of the pieces. */
    Map<Long, JsonNode> forReaders(List<Piece> all) {
        Map<Long, Long> merged = shelf.mergedAway();
        Map<Long, JsonNode> bodies = new HashMap<>();
        for (Piece piece : all) {
            JsonNode body = body(piece, merged);
            if (body instanceof ObjectNode fields) {
                fields.remove(PieceShape.NOTES);
            }
            bodies.put(piece.id, body);
        }
        return bodies;
    }

    /** @param seen revision of the title that its writer saw is not asked for: the title is one line, and the log keeps both */
    @Transactional
    public WriteUpPage change(
            long id, String title, @Nullable String subtitle, Set<Long> models, boolean listed, String person) {
        WriteUp w = held(id);
        if (!w.title.equals(title.strip())) {
            changes.note(person, SUBJECT, id, "title", w.title, title.strip());
        }
        if (w.listed != listed) {
            changes.note(person, SUBJECT, id, "listed", String.valueOf(w.listed), String.valueOf(listed));
        }
        w.title = title.strip();
        w.subtitle = subtitle == null || subtitle.isBlank() ? null : subtitle.strip();
        w.models.retainAll(models);
        w.models.addAll(known(models));
        w.listed = listed;
        w.touched(clock.instant());
        return whole(id);
    }

    @Transactional
    public void remove(long id, String person) {
        WriteUp w = held(id);
        w.removedAt = clock.instant();
        w.draftHash = null;
        changes.note(person, SUBJECT, id, "removed", w.title, null);
    }

    @Transactional
    public void restore(long id, String person) {
        WriteUp w = locks.lock(WriteUp.class, id)
                .map(l -> (WriteUp) Hibernate.unproxy(l))
                .orElseThrow(() -> Problem.notFound("write-up", id));
        w.removedAt = null;
        changes.note(person, SUBJECT, id, "restored", null, w.title);
    }

    /** @param after the piece that it stands behind; null for the first place */
    @Transactional
    public PieceRow add(long id, NewPiece piece, @Nullable Long after, String person) {
        WriteUp w = held(id);
        PieceShape.check(piece.kind(), piece.body());
        List<Piece> all = pieces(id);
        if (all.size() >= MOST_PIECES) {
            throw tooMany();
        }
        Instant now = clock.instant();
        Piece made = new Piece(
                id,
                PiecePlaces.between(all, after, null),
                piece.kind(),
                piece.body().toString(),
                person,
                now);
        entities.persist(made);
        w.touched(now);
        return row(made);
    }

    Piece piece(long id, long piece) {
        Piece found = (Piece) Hibernate.unproxy(entities.find(Piece.class, piece));
        if (found == null || found.writeUpId != id) {
            throw Problem.notFound("piece", piece);
        }
        return found;
    }

    /**
     * @param seen the revision that its writer began from
     * @throws Problem where it was changed since; it says what is there now and who did it
     */
    @Transactional
    public PieceRow change(long id, long pieceId, JsonNode body, int seen, String person) {
        WriteUp w = held(id);
        Piece piece = piece(id, pieceId);
        PieceShape.check(piece.kind, body);
        String text = body.toString();
        if (piece.revision != seen && !piece.body.equals(text)) {
            throw new Problem(
                            HttpStatus.CONFLICT,
                            "piece-changed",
                            piece.changedBy + " changed this piece meanwhile. Yours is not lost: take one of them.")
                    .with("now", row(piece));
        }
        if (!piece.body.equals(text)) {
            Instant now = clock.instant();
            piece.body = text;
            piece.removedAt = null;
            piece.changed(person, now);
            w.touched(now);
        }
        return row(piece);
    }

    @Transactional
    public void move(long id, long pieceId, @Nullable Long after) {
        WriteUp w = held(id);
        Piece piece = piece(id, pieceId);
        piece.place = PiecePlaces.between(pieces(id), after, piece);
        w.touched(clock.instant());
    }

    @Transactional
    public void removePiece(long id, long pieceId, String person) {
        WriteUp w = held(id);
        Piece piece = piece(id, pieceId);
        Instant now = clock.instant();
        piece.removedAt = now;
        piece.changed(person, now);
        w.touched(now);
    }

    @Transactional
    public PieceRow restorePiece(long id, long pieceId, String person) {
        WriteUp w = held(id);
        Piece piece = piece(id, pieceId);
        Instant now = clock.instant();
        piece.removedAt = null;
        piece.changed(person, now);
        w.touched(now);
        return row(piece);
    }
}
