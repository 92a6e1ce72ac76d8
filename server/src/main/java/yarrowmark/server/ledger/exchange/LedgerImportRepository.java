package yarrowmark.server.ledger.exchange;

import java.time.Instant;
import java.util.Collection;
import java.util.List;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface LedgerImportRepository extends JpaRepository<LedgerImportEntry, Long> {
    List<LedgerImportEntry> findTop50ByAtAfterOrderByIdDesc(Instant after);

    /** How much of each kind these made: id, kind, count. */
    @Query(
            "select i.id, p.kind, count(p) from LedgerImportEntry i join i.parts p where i in :imports group by i.id, p.kind")
    List<Object[]> made(Collection<LedgerImportEntry> imports);
}
