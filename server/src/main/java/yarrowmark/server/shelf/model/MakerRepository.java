package yarrowmark.server.shelf.model;

import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;

public interface MakerRepository extends JpaRepository<Maker, Long> {
    Optional<Maker> findByName(String name);

    List<Maker> findAllByOrderByName();
}
