package yarrowmark.server.bench;

import java.util.List;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.event.TransactionPhase;
import org.springframework.transaction.event.TransactionalEventListener;

/** After a seat's change is stored, tells whoever watches the bench and the device that waits for a command. */
@Component
class SeatNews {
    private final SeatRepository seats;
    private final Lanes lanes;
    private final LiveFeed feed;
    private final CommandWaiters waiters;

    SeatNews(SeatRepository seats, Lanes lanes, LiveFeed feed, CommandWaiters waiters) {
        this.seats = seats;
        this.lanes = lanes;
        this.feed = feed;
        this.waiters = waiters;
    }

    /** One at a time: a lane that was read earlier must not be told later. */
    @TransactionalEventListener(phase = TransactionPhase.AFTER_COMMIT)
    @Transactional(propagation = Propagation.REQUIRES_NEW, readOnly = true)
    public void changed(SeatChanged news) {
        synchronized (feed) {
            seats.findById(news.seatId()).ifPresent(seat -> {
                feed.publish("lane", lanes.of(List.of(seat)).get(0));
                waiters.tell(seat.id(), new CommandWaiters.CommandState(seat.command(), seat.commandRevision()));
            });
        }
    }
}
