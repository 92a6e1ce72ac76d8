package yarrowmark.server.ledger.exchange;

import java.time.Instant;
import java.util.List;
import org.springframework.data.jpa.repository.JpaRepository;

interface LedgerImportRepository extends JpaRepository<LedgerImportEntry, Long> {
    List<LedgerImportEntry> findByAtAfterOrderByIdDesc(Instant after);
}
