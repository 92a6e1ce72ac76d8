package yarrowmark.server.access;

import jakarta.persistence.LockModeType;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Lock;

interface InvitationRepository extends JpaRepository<Invitation, Long> {
    Optional<Invitation> findByTokenHash(String tokenHash);

    /** Of two who follow the same link at once, one waits and then finds it used. */
    @Lock(LockModeType.PESSIMISTIC_WRITE)
    Optional<Invitation> findForUseByTokenHash(String tokenHash);

    /** Links for a new password of somebody that nobody followed yet. */
    List<Invitation> findByRoleIsNullAndPersonIdAndUsedAtIsNull(long personId);

    List<Invitation> findByUsedAtIsNullAndExpiresAtAfterOrderByIdDesc(Instant now);
}
