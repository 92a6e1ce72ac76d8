package yarrowmark.server.ledger.record;

import org.springframework.data.jpa.repository.JpaRepository;

public interface ReadingSamplesRepository extends JpaRepository<ReadingSamples, Long> {}
