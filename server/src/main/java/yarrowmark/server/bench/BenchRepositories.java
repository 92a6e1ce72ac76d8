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

    /**
     * What the bench shows: codes that can still be used, devices that were heard lately, however long ago their round began,
     * and whatever has runs that somebody must decide about. One that was silent for long is here again once it is heard.
     */
    @Query(
            """
        select s from Seat s
        where exists (select l.id from LateRun l where l.seatId = s.id)
        or (s.phase = WAITING and s.expiresAt > :now)
        or (s.phase not in (WAITING, CLEARED) and coalesce(s.lastHeardAt, s.createdAt) > :since)
        order by case when s.phase in (DONE, STOPPED, CLEARED) then 1 else 0 end, s.createdAt desc limit 100""")
    List<Seat> findOnBench(Instant since, Instant now);

    /** Of a session, a seat with runs that came after its end. */
    @Query(
            "select s from Seat s where s.sessionId = :session and exists (select l.id from LateRun l where l.seatId = s.id)")
    List<Seat> withLateRuns(long session);
}

interface DeliveryRepository extends JpaRepository<Delivery, Delivery.Key> {}

interface LateRunRepository extends JpaRepository<LateRun, Long> {
    Optional<LateRun> findBySeatIdAndDeliveryKey(long seatId, String deliveryKey);

    List<LateRun> findBySeatIdOrderById(long seatId);

    @Query("select l.seatId, count(l) from LateRun l where l.seatId in :seats group by l.seatId")
    List<Object[]> count(Collection<Long> seats);
}
