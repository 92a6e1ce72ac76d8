package yarrowmark.server.bench;

import java.util.List;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;
import org.springframework.transaction.PlatformTransactionManager;
import org.springframework.transaction.support.TransactionTemplate;
import yarrowmark.server.platform.records.AfterCommitQueue;

/** After a seat's change is stored, tells whoever watches the bench and the device that waits for a command. */
@Component
class SeatEvents {
    private final SeatRepository seats;
    private final Lanes lanes;
    private final LiveFeed feed;
    private final CommandPolls waiters;
    private final AfterCommitQueue later;
    private final TransactionTemplate reading;

    SeatEvents(
            SeatRepository seats,
            Lanes lanes,
            LiveFeed feed,
            CommandPolls waiters,
            AfterCommitQueue later,
            PlatformTransactionManager transactions) {
        this.seats = seats;
        this.lanes = lanes;
        this.feed = feed;
        this.waiters = waiters;
        this.later = later;
        this.reading = new TransactionTemplate(transactions);
        this.reading.setReadOnly(true);
    }

    /** One at a time and in order: a lane that was read earlier must not be told later. */
    @EventListener
    void changed(SeatChanged news) {
        later.afterCommit(
                news,
                () -> reading.executeWithoutResult(
                        t -> seats.findById(news.seatId()).ifPresent(seat -> {
                            waiters.tell(
                                    seat.id(), new CommandPolls.CommandState(seat.command(), seat.commandRevision()));
                            feed.publish(
                                    "lane", seat.id(), lanes.of(List.of(seat)).get(0));
                        })));
    }
}
