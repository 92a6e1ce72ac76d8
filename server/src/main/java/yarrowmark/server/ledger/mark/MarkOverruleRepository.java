package yarrowmark.server.ledger.mark;

import java.util.List;
import org.springframework.data.jpa.repository.JpaRepository;

interface MarkOverruleRepository extends JpaRepository<MarkOverrule, Long> {
    List<MarkOverrule> findByTakenBackAtIsNull();

    List<MarkOverrule> findByConfigurationIdAndMetricIdAndTakenBackAtIsNull(long configurationId, long metricId);
}
