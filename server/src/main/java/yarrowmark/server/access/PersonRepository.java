package yarrowmark.server.access;

import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;

interface PersonRepository extends JpaRepository<Person, Long> {
    Optional<Person> findByName(String name);
}
