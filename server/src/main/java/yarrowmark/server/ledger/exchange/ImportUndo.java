package yarrowmark.server.ledger.exchange;

import jakarta.persistence.EntityManager;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Collection;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import yarrowmark.server.ledger.exchange.LedgerImportEntry.Kind;
import yarrowmark.server.ledger.exchange.LedgerImportEntry.Part;
import yarrowmark.server.ledger.line.SetAsides;
import yarrowmark.server.platform.Problem;
import yarrowmark.server.platform.history.ChangeLog;
import yarrowmark.server.platform.records.Locks;
import yarrowmark.server.shelf.Shelf;
import yarrowmark.server.shelf.ShelfPages;
import yarrowmark.server.shelf.configuration.Configurations;

/**
 * Takes a whole import back, for a week: its readings are set aside, and what it made on the shelf is retired where nothing
 * else was measured on it. Nothing is deleted, so the undo can be undone.
 */
@Service
class ImportUndo {
    private static final Duration FOR = Duration.ofDays(7);
    private static final int NAMED = 20;

    /**
     * An import of the last week.
     *
     * @param made     sessions, configurations and models that it made
     * @param undoneBy null while it counts
     */
    record PastImport(
            long id,
            Instant at,
            String person,
            int readings,
            int madeSessions,
            int madeConfigurations,
            int madeModels,
            @Nullable Instant undoneAt,
            @Nullable String undoneBy) {}

    /**
     * What an undo, or its own undo, came to.
     *
     * @param readings that are set aside now, or count again
     * @param kept     configurations that it made and that stay, because something else was measured on them; the first of them
     */
    record Undone(PastImport of, int readings, List<String> kept) {}

    private final LedgerImportRepository imports;
    private final SetAsides asides;
    private final Configurations configurations;
    private final Shelf shelf;
    private final ShelfPages pages;
    private final EntityManager entities;
    private final Locks locks;
    private final ChangeLog changes;
    private final Clock clock;

    ImportUndo(
            LedgerImportRepository imports,
            SetAsides asides,
            Configurations configurations,
            Shelf shelf,
            ShelfPages pages,
            EntityManager entities,
            Locks locks,
            ChangeLog changes,
            Clock clock) {
        this.imports = imports;
        this.asides = asides;
        this.configurations = configurations;
        this.shelf = shelf;
        this.pages = pages;
        this.entities = entities;
        this.locks = locks;
        this.changes = changes;
        this.clock = clock;
    }

    /** The last fifty of those that can still be undone, or restored, the newest first. */
    @Transactional(readOnly = true)
    public List<PastImport> all() {
        List<LedgerImportEntry> past =
                imports.findTop50ByAtAfterOrderByIdDesc(clock.instant().minus(FOR));
        Map<Long, Map<Kind, Integer>> made = new HashMap<>();
        if (!past.isEmpty()) {
            imports.made(past).forEach(row -> made.computeIfAbsent((Long) row[0], id -> new EnumMap<>(Kind.class))
                    .put((Kind) row[1], ((Long) row[2]).intValue()));
        }
        return past.stream()
                .map(e -> shown(e, made.getOrDefault(e.id(), Map.of())))
                .toList();
    }

    @Transactional
    public Undone undo(long id, String person) {
        LedgerImportEntry entry = recent(id);
        if (entry.undoneAt() != null) {
            throw Problem.conflict("undone-already", "This import was undone already, by " + entry.undoneBy() + ".");
        }
        SetAsides.Done set = asides.setAsideSessions(entry.made(Kind.SESSION), "Its import was undone", person);
        Set<Long> kept = measuredElsewise(entry.made(Kind.CONFIGURATION), entry.made(Kind.SESSION));
        entry.undo(person, clock.instant(), set.readings() == 0 ? null : set.batch(), retire(entry, kept, person));
        changes.note(person, "import", id, "undone", null, set.readings() + " readings");
        return new Undone(shown(entry), set.readings(), names(kept));
    }

    /** Its readings count again, and what was retired with it is back. */
    @Transactional
    public Undone restore(long id, String person) {
        LedgerImportEntry entry = recent(id);
        if (entry.undoneAt() == null) {
            throw Problem.conflict("not-undone", "This import was not undone.");
        }
        Long batch = entry.batch();
        int readings = batch == null ? 0 : asides.takeBack(batch, person).readings();
        bringBack(entry, person);
        entry.restore();
        changes.note(person, "import", id, "undone", readings + " readings", null);
        return new Undone(shown(entry), readings, List.of());
    }

    private LedgerImportEntry recent(long id) {
        LedgerImportEntry entry =
                locks.lock(LedgerImportEntry.class, id).orElseThrow(() -> Problem.notFound("import", id));
        if (entry.at().isBefore(clock.instant().minus(FOR))) {
            throw Problem.conflict(
                    "too-long-ago",
                    "An import can be undone for a week. Set its readings aside in the ledger instead: a view of its sessions, then “Set all aside”.");
        }
        return entry;
    }

    /** Of those it made, configurations with a session of anybody else. */
    private Set<Long> measuredElsewise(Collection<Long> made, Collection<Long> sessions) {
        return made.isEmpty()
                ? Set.of()
                : new HashSet<>(entities.createQuery(
                                "select distinct s.configurationId from Session s where s.configurationId in :made and s.id not in :sessions",
                                Long.class)
                        .setParameter("made", made)
                        .setParameter("sessions", sessions)
                        .getResultList());
    }

    /** @return what it retired, and was not retired before */
    private Set<Part> retire(LedgerImportEntry entry, Set<Long> kept, String person) {
        Set<Part> retired = new HashSet<>();
        pages.configurations(entry.made(Kind.CONFIGURATION)).stream()
                .filter(c -> !c.retired() && !kept.contains(c.id()))
                .forEach(c -> {
                    configurations.retire(c.id(), true, person);
                    retired.add(new Part(Kind.RETIRED_CONFIG, c.id()));
                });
        List<Long> models = entry.made(Kind.MODEL);
        if (!models.isEmpty()) {
            entities.createQuery(
                            "select m.id from Model m where m.id in :models and m.retiredAt is null and not exists (select 1 from Configuration c where c.unit.model = m and c.retiredAt is null and c.mergedInto is null)",
                            Long.class)
                    .setParameter("models", models)
                    .getResultList()
                    .forEach(id -> {
                        shelf.retireModel(id, true, person);
                        retired.add(new Part(Kind.RETIRED_MODEL, id));
                    });
        }
        return retired;
    }

    /** What was deleted or merged since is not there to be brought back. */
    private void bringBack(LedgerImportEntry entry, String person) {
        pages.configurations(entry.made(Kind.RETIRED_CONFIG))
                .forEach(c -> configurations.retire(c.id(), false, person));
        List<Long> models = entry.made(Kind.RETIRED_MODEL);
        if (!models.isEmpty()) {
            entities.createQuery("select m.id from Model m where m.id in :models", Long.class)
                    .setParameter("models", models)
                    .getResultList()
                    .forEach(id -> shelf.retireModel(id, false, person));
        }
    }

    private List<String> names(Set<Long> kept) {
        return pages.configurations(kept).stream()
                .limit(NAMED)
                .map(c -> c.maker() + " " + c.model() + ", " + c.name())
                .toList();
    }

    private static PastImport shown(LedgerImportEntry e) {
        Map<Kind, Integer> made = new EnumMap<>(Kind.class);
        for (Kind kind : Kind.values()) {
            made.put(kind, e.made(kind).size());
        }
        return shown(e, made);
    }

    private static PastImport shown(LedgerImportEntry e, Map<Kind, Integer> made) {
        return new PastImport(
                e.id(),
                e.at(),
                e.person(),
                e.readings(),
                made.getOrDefault(Kind.SESSION, 0),
                made.getOrDefault(Kind.CONFIGURATION, 0),
                made.getOrDefault(Kind.MODEL, 0),
                e.undoneAt(),
                e.undoneBy());
    }
}
