package yarrowmark.server.shelf.configuration;

import java.util.List;
import org.springframework.data.jpa.repository.JpaRepository;

public interface CorrectionRepository extends JpaRepository<FactCorrection, Long> {
    List<FactCorrection> findByConfigurationIdOrderById(long configurationId);
}
