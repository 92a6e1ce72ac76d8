package yarrowmark.server.access;

import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;

interface ApiKeyRepository extends JpaRepository<ApiKey, Long> {
    Optional<ApiKey> findByKeyHashAndEndedAtIsNull(String keyHash);

    List<ApiKey> findByPersonIdAndEndedAtIsNullOrderByIdDesc(long personId);

    List<ApiKey> findByEndedAtIsNullOrderByIdDesc();
}
