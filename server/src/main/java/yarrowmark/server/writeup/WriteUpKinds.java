package yarrowmark.server.writeup;

import jakarta.persistence.EntityManager;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Pattern;
import jakarta.validation.constraints.Size;
import java.time.Clock;
import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import org.hibernate.Hibernate;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.history.ChangeLog;
import yarrowmark.server.platform.records.Locks;

/** The kinds of write-ups of this lab: which pieces each begins with, in which order. */
@Service
class WriteUpKinds {
    private static final String SUBJECT = "write-up kind";
    private static final int MOST = 60;

    /**
     * A piece that a new write-up begins with.
     *
     * @param text   of a heading, or what a text begins with
     * @param figure what a figure or a table asks; filled in with whatever it is begun from
     */
    record KindPiece(
            @NotNull PieceKind kind,
            @Nullable @Size(max = 4_000) String text,
            @Nullable
                    @Pattern(
                            regexp = "bars|ratios|standing|value|trend|curves|frames|factors",
                            message = "is no figure")
                    String figure) {}

    record KindRow(
            long id,
            String name,
            WriteUpKind.Begins begins,
            List<KindPiece> pieces,
            int revision,
            String changedBy,
            Instant changedAt) {}

    private final EntityManager entities;
    private final Locks locks;
    private final JsonMapper json;
    private final ChangeLog changes;
    private final Clock clock;

    WriteUpKinds(EntityManager entities, Locks locks, JsonMapper json, ChangeLog changes, Clock clock) {
        this.entities = entities;
        this.locks = locks;
        this.json = json;
        this.changes = changes;
        this.clock = clock;
    }

    @Transactional(readOnly = true)
    public List<KindRow> all() {
        return entities
                .createQuery("select k from WriteUpKind k where k.removedAt is null order by k.id", WriteUpKind.class)
                .getResultList()
                .stream()
                .map(this::row)
                .toList();
    }

    private KindRow row(WriteUpKind k) {
        return new KindRow(
                k.id,
                k.name,
                k.begins,
                Arrays.asList(json.readValue(k.pieces, KindPiece[].class)),
                k.revision,
                k.changedBy,
                k.changedAt);
    }

    @Transactional
    public KindRow make(String name, WriteUpKind.Begins begins, List<KindPiece> pieces, String person) {
        if (all().size() >= MOST) {
            throw Problem.invalid("too-many-kinds", "A lab has " + MOST + " kinds of write-ups at the most.");
        }
        WriteUpKind made = new WriteUpKind();
        set(made, name, begins, pieces, person);
        entities.persist(made);
        changes.note(person, SUBJECT, made.id, ChangeLog.MADE, null, made.name);
        return row(made);
    }

    /** @param seen the revision that was looked at before */
    @Transactional
    public KindRow change(
            long id, String name, WriteUpKind.Begins begins, List<KindPiece> pieces, int seen, String person) {
        WriteUpKind kind = held(id);
        if (kind.removedAt != null) {
            throw Problem.notFound(SUBJECT, id);
        }
        if (kind.revision != seen) {
            throw Problem.conflict(
                    "kind-changed", kind.changedBy + " changed this kind meanwhile. Look at it again before you do.");
        }
        changes.note(person, SUBJECT, id, "pieces", brief(kind), null);
        set(kind, name, begins, pieces, person);
        return row(kind);
    }

    @Transactional
    public void remove(long id, String person) {
        WriteUpKind kind = held(id);
        kind.removedAt = clock.instant();
        changes.note(person, SUBJECT, id, "removed", kind.name, null);
    }

    @Transactional
    public void restore(long id, String person) {
        WriteUpKind kind = held(id);
        kind.removedAt = null;
        changes.note(person, SUBJECT, id, "restored", null, kind.name);
    }

    private WriteUpKind held(long id) {
        return locks.lock(WriteUpKind.class, id)
                .map(k -> (WriteUpKind) Hibernate.unproxy(k))
                .orElseThrow(() -> Problem.notFound(SUBJECT, id));
    }

    private void set(WriteUpKind kind, String name, WriteUpKind.Begins begins, List<KindPiece> pieces, String person) {
        kind.name = name.strip();
        kind.begins = begins;
        kind.pieces = json.writeValueAsString(pieces);
        kind.revision++;
        kind.changedBy = person;
        kind.changedAt = clock.instant();
    }

    /** For the log: a line is not the place for all of its texts. */
    private String brief(WriteUpKind kind) {
        return kind.name + ": "
                + String.join(
                        ", ",
                        row(kind).pieces().stream()
                                .limit(40)
                                .map(p -> p.kind().name().toLowerCase(java.util.Locale.ROOT))
                                .toList());
    }
}
