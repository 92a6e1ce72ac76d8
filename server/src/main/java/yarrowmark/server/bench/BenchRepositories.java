package yarrowmark.server.bench;

import jakarta.persistence.LockModeType;
import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Lock;
import org.springframework.data.jpa.repository.Query;

interface SeatRepository extends JpaRepository<Seat, Long> {
    /** Locked, so that of two devices with the same code only one gets in. */
    @Lock(LockModeType.PESSIMISTIC_WRITE)
    @Query("select s from Seat s where s.code = :code order by s.createdAt desc limit 1")
    Optional<Seat> lockNewestByCode(String code);

    Optional<Seat> findBySessionId(long sessionId);

    boolean existsByCode(String code);

    Optional<Seat> findByTokenHash(String tokenHash);

    /** What the bench shows: seats that are not cleared, and codes that can still be used. */
    @Query(
            """
        select s from Seat s where s.phase <> CLEARED and s.createdAt > :since
        and (s.phase <> WAITING or s.expiresAt > :now) order by s.createdAt desc limit 40""")
    List<Seat> findOnBench(Instant since, Instant now);
}

interface DeliveryRepository extends JpaRepository<Delivery, Delivery.Key> {}

interface LateRunRepository extends JpaRepository<LateRun, Long> {
    Optional<LateRun> findBySeatIdAndDeliveryKey(long seatId, String deliveryKey);

    List<LateRun> findBySeatIdOrderById(long seatId);

    @Query("select l.seatId, count(l) from LateRun l where l.seatId in :seats group by l.seatId")
    List<Object[]> count(Collection<Long> seats);
}
