package yarrowmark.server.ledger.exchange;

import jakarta.persistence.CollectionTable;
import jakarta.persistence.ElementCollection;
import jakarta.persistence.Embeddable;
import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.JoinColumn;
import jakarta.persistence.Table;
import java.time.Instant;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** One import that was stored: what it made, and whether it was undone. */
@Entity
@Table(name = "ledger_import")
class LedgerImportEntry {
    enum Kind {
        SESSION,
        CONFIGURATION,
        UNIT,
        MODEL,
        /** Retired as it was undone, and by nobody before: what its undoing brings back. */
        RETIRED_CONFIG,
        RETIRED_MODEL
    }

    @Embeddable
    record Part(@Enumerated(EnumType.STRING) Kind kind, long partId) {}

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private Long id;

    private String person;
    private Instant at;
    private int readings;
    private @Nullable Instant undoneAt;
    private @Nullable String undoneBy;
    /** What was set aside as it was undone. */
    private @Nullable Long batch;

    @ElementCollection
    @CollectionTable(name = "ledger_import_part", joinColumns = @JoinColumn(name = "import_id"))
    private Set<Part> parts = new HashSet<>();

    protected LedgerImportEntry() {}

    LedgerImportEntry(String person, Instant at, int readings, Set<Part> parts) {
        this.person = person;
        this.at = at;
        this.readings = readings;
        this.parts = new HashSet<>(parts);
    }

    Long id() {
        return id;
    }

    String person() {
        return person;
    }

    Instant at() {
        return at;
    }

    int readings() {
        return readings;
    }

    @Nullable
    Instant undoneAt() {
        return undoneAt;
    }

    @Nullable
    String undoneBy() {
        return undoneBy;
    }

    @Nullable
    Long batch() {
        return batch;
    }

    /** Numbers of what it made of one kind, in their order. */
    List<Long> made(Kind kind) {
        return parts.stream()
                .filter(p -> p.kind() == kind)
                .map(Part::partId)
                .sorted()
                .toList();
    }

    /** @param setAside what names the readings that were set aside; null where none of them counted. @param retired with it */
    void undo(String who, Instant when, @Nullable Long setAside, Set<Part> retired) {
        parts.addAll(retired);
        this.undoneBy = who;
        this.undoneAt = when;
        this.batch = setAside;
    }

    void restore() {
        parts.removeIf(p -> p.kind() == Kind.RETIRED_CONFIG || p.kind() == Kind.RETIRED_MODEL);
        this.undoneBy = null;
        this.undoneAt = null;
        this.batch = null;
    }
}
