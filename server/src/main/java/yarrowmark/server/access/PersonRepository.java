package yarrowmark.server.access;

import jakarta.persistence.LockModeType;
import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Lock;
import org.springframework.data.jpa.repository.Query;

interface PersonRepository extends JpaRepository<Person, Long> {
    Optional<Person> findByNameAndRemovedAtIsNull(String name);

    Optional<Person> findByIdAndRemovedAtIsNull(long id);

    List<Person> findByRemovedAtIsNullOrderByName();

    boolean existsByName(String name);

    /** Held until the transaction ends: of two owners who demote each other at once, the second one sees the first. */
    @Lock(LockModeType.PESSIMISTIC_WRITE)
    @Query(
            "select p from Person p where p.role = yarrowmark.server.access.Role.OWNER and p.removedAt is null order by p.id")
    List<Person> lockOwners();
}
